ALTER TABLE uplink ADD COLUMN segment_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL;
ALTER TABLE uplink ADD CONSTRAINT uplink_segment FOREIGN KEY (site_id, segment_id) REFERENCES vlan (site_id, id);

CREATE TABLE static_route (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  prefix_v4 INT UNSIGNED NULL,
  prefix_v6 BINARY(16) NULL,
  prefix_len TINYINT UNSIGNED NOT NULL,
  via_v4 INT UNSIGNED NULL,
  via_v6 BINARY(16) NULL,
  note VARCHAR(120) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT static_route_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT static_route_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);

CREATE TABLE tunnel (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  uplink_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  name VARCHAR(40) NOT NULL,
  peer VARCHAR(120) NOT NULL,
  initiates BOOLEAN NOT NULL,
  enabled BOOLEAN NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT tunnel_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT tunnel_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id),
  CONSTRAINT tunnel_uplink FOREIGN KEY (site_id, uplink_id) REFERENCES uplink (site_id, id)
);

CREATE TABLE tunnel_remote (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  prefix_v4 INT UNSIGNED NULL,
  prefix_v6 BINARY(16) NULL,
  prefix_len TINYINT UNSIGNED NOT NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT tunnel_remote_owner FOREIGN KEY (site_id, owner_id) REFERENCES tunnel (site_id, id) ON DELETE CASCADE
);

CREATE TABLE zone_tunnel (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  tunnel_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT zone_tunnel_owner FOREIGN KEY (site_id, owner_id) REFERENCES zone (site_id, id) ON DELETE CASCADE,
  CONSTRAINT zone_tunnel_tunnel FOREIGN KEY (site_id, tunnel_id) REFERENCES tunnel (site_id, id)
);

CREATE TABLE translation (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  subnet_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  outside_v4 INT UNSIGNED NULL,
  outside_v6 BINARY(16) NULL,
  outside_len TINYINT UNSIGNED NOT NULL,
  note VARCHAR(120) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT translation_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT translation_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id),
  CONSTRAINT translation_subnet FOREIGN KEY (site_id, subnet_id) REFERENCES subnet (site_id, id)
);

CREATE TABLE voice_box (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  uplink_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  own_v4 INT UNSIGNED NULL,
  own_v6 BINARY(16) NULL,
  own_len TINYINT UNSIGNED NULL,
  needs_tag BOOLEAN NOT NULL,
  tag_repeated BOOLEAN NOT NULL,
  dscp TINYINT UNSIGNED NOT NULL,
  first_in_queue BOOLEAN NOT NULL,
  backed_up BOOLEAN NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT voice_box_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT voice_box_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id),
  CONSTRAINT voice_box_uplink FOREIGN KEY (site_id, uplink_id) REFERENCES uplink (site_id, id)
);
