CREATE TABLE box (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  model VARCHAR(80) NOT NULL,
  vlan_aware BOOLEAN NOT NULL,
  vlan_limit SMALLINT UNSIGNED NULL,
  mixes_tags BOOLEAN NOT NULL,
  passes VARCHAR(40) NOT NULL,
  layer3 BOOLEAN NOT NULL,
  filter_kind VARCHAR(20) NOT NULL,
  spanning_tree VARCHAR(20) NOT NULL,
  snooping BOOLEAN NOT NULL,
  dot1x BOOLEAN NOT NULL,
  factory VARCHAR(20) NOT NULL,
  poe_budget SMALLINT UNSIGNED NULL,
  power_feeds TINYINT UNSIGNED NOT NULL,
  location VARCHAR(80) NOT NULL,
  mounting VARCHAR(80) NOT NULL,
  asset_tag VARCHAR(40) NOT NULL,
  serial_number VARCHAR(60) NOT NULL,
  hardware_revision VARCHAR(40) NOT NULL,
  base_mac CHAR(17) CHARACTER SET ascii NULL,
  firmware VARCHAR(40) NOT NULL,
  supported_until CHAR(10) CHARACTER SET ascii NULL,
  licence VARCHAR(80) NOT NULL,
  licence_until CHAR(10) CHARACTER SET ascii NULL,
  login_changed CHAR(10) CHARACTER SET ascii NULL,
  login_kept VARCHAR(80) NOT NULL,
  controller_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT box_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT box_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id),
  CONSTRAINT box_controller FOREIGN KEY (site_id, controller_id) REFERENCES device (site_id, id)
);

CREATE TABLE port_profile (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(40) NOT NULL,
  role VARCHAR(20) NOT NULL,
  pvid_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  untagged_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  tagged_mode VARCHAR(10) NOT NULL,
  voice_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  accepts VARCHAR(10) NOT NULL,
  ingress_filter BOOLEAN NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT port_profile_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT port_profile_pvid FOREIGN KEY (site_id, pvid_id) REFERENCES vlan (site_id, id),
  CONSTRAINT port_profile_untagged FOREIGN KEY (site_id, untagged_id) REFERENCES vlan (site_id, id),
  CONSTRAINT port_profile_voice FOREIGN KEY (site_id, voice_id) REFERENCES vlan (site_id, id)
);

CREATE TABLE profile_tagged (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  vlan_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT profile_tagged_owner FOREIGN KEY (site_id, owner_id) REFERENCES port_profile (site_id, id) ON DELETE CASCADE,
  CONSTRAINT profile_tagged_vlan FOREIGN KEY (site_id, vlan_id) REFERENCES vlan (site_id, id)
);

CREATE TABLE aggregate (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(40) NOT NULL,
  lacp BOOLEAN NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT aggregate_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT aggregate_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);

CREATE TABLE port (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  port_number SMALLINT UNSIGNED NOT NULL,
  port_index SMALLINT UNSIGNED NULL,
  name VARCHAR(40) NOT NULL,
  face_row TINYINT UNSIGNED NOT NULL,
  face_column TINYINT UNSIGNED NOT NULL,
  media VARCHAR(10) NOT NULL,
  speed INT UNSIGNED NOT NULL,
  poe_class TINYINT UNSIGNED NULL,
  optic VARCHAR(60) NOT NULL,
  defective BOOLEAN NOT NULL,
  role VARCHAR(20) NOT NULL,
  pvid_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  untagged_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  tagged_mode VARCHAR(10) NOT NULL,
  voice_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  accepts VARCHAR(10) NOT NULL,
  ingress_filter BOOLEAN NOT NULL,
  sets_itself VARCHAR(10) NOT NULL,
  enabled BOOLEAN NOT NULL,
  exposed BOOLEAN NOT NULL,
  label VARCHAR(60) NOT NULL,
  profile_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  aggregate_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT port_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT port_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id),
  CONSTRAINT port_pvid FOREIGN KEY (site_id, pvid_id) REFERENCES vlan (site_id, id),
  CONSTRAINT port_untagged FOREIGN KEY (site_id, untagged_id) REFERENCES vlan (site_id, id),
  CONSTRAINT port_voice FOREIGN KEY (site_id, voice_id) REFERENCES vlan (site_id, id),
  CONSTRAINT port_profile FOREIGN KEY (site_id, profile_id) REFERENCES port_profile (site_id, id),
  CONSTRAINT port_aggregate FOREIGN KEY (site_id, aggregate_id) REFERENCES aggregate (site_id, id)
);

CREATE TABLE port_tagged (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  vlan_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT port_tagged_owner FOREIGN KEY (site_id, owner_id) REFERENCES port (site_id, id) ON DELETE CASCADE,
  CONSTRAINT port_tagged_vlan FOREIGN KEY (site_id, vlan_id) REFERENCES vlan (site_id, id)
);

CREATE TABLE cable (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  from_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  from_side VARCHAR(10) NOT NULL,
  to_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  to_side VARCHAR(10) NOT NULL,
  media VARCHAR(20) NOT NULL,
  length_m INT UNSIGNED NULL,
  label VARCHAR(60) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT cable_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT cable_from FOREIGN KEY (site_id, from_id) REFERENCES port (site_id, id),
  CONSTRAINT cable_to FOREIGN KEY (site_id, to_id) REFERENCES port (site_id, id)
);
