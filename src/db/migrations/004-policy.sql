CREATE TABLE zone (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(40) NOT NULL,
  rank_key VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  gateway BOOLEAN NOT NULL,
  inside VARCHAR(10) NOT NULL,
  manages BOOLEAN NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT zone_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);

CREATE TABLE zone_vlan (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  vlan_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT zone_vlan_owner FOREIGN KEY (site_id, owner_id) REFERENCES zone (site_id, id) ON DELETE CASCADE,
  CONSTRAINT zone_vlan_vlan FOREIGN KEY (site_id, vlan_id) REFERENCES vlan (site_id, id)
);

CREATE TABLE zone_uplink (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  uplink_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT zone_uplink_owner FOREIGN KEY (site_id, owner_id) REFERENCES zone (site_id, id) ON DELETE CASCADE,
  CONSTRAINT zone_uplink_uplink FOREIGN KEY (site_id, uplink_id) REFERENCES uplink (site_id, id)
);

CREATE TABLE service (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(40) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT service_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);

CREATE TABLE service_match (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  protocol VARCHAR(10) NOT NULL,
  port_from SMALLINT UNSIGNED NOT NULL,
  port_to SMALLINT UNSIGNED NOT NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT service_match_owner FOREIGN KEY (site_id, owner_id) REFERENCES service (site_id, id) ON DELETE CASCADE
);

CREATE TABLE policy_cell (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  from_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  to_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  decision VARCHAR(10) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT policy_cell_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT policy_cell_from FOREIGN KEY (site_id, from_id) REFERENCES zone (site_id, id),
  CONSTRAINT policy_cell_to FOREIGN KEY (site_id, to_id) REFERENCES zone (site_id, id)
);

CREATE TABLE cell_service (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  service_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT cell_service_owner FOREIGN KEY (site_id, owner_id) REFERENCES policy_cell (site_id, id) ON DELETE CASCADE
);

CREATE TABLE policy_rule (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  rank_key VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  action VARCHAR(10) NOT NULL,
  logged BOOLEAN NOT NULL,
  enabled BOOLEAN NOT NULL,
  until_day CHAR(10) CHARACTER SET ascii NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  note VARCHAR(120) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT policy_rule_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT policy_rule_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);

CREATE TABLE rule_from (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  zone_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  vlan_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  prefix_v4 INT UNSIGNED NULL,
  prefix_v6 BINARY(16) NULL,
  prefix_len TINYINT UNSIGNED NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT rule_from_owner FOREIGN KEY (site_id, owner_id) REFERENCES policy_rule (site_id, id) ON DELETE CASCADE
);

CREATE TABLE rule_to (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  zone_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  vlan_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  prefix_v4 INT UNSIGNED NULL,
  prefix_v6 BINARY(16) NULL,
  prefix_len TINYINT UNSIGNED NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT rule_to_owner FOREIGN KEY (site_id, owner_id) REFERENCES policy_rule (site_id, id) ON DELETE CASCADE
);

CREATE TABLE rule_service (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  service_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT rule_service_owner FOREIGN KEY (site_id, owner_id) REFERENCES policy_rule (site_id, id) ON DELETE CASCADE
);
