ALTER TABLE site_record ADD COLUMN IF NOT EXISTS country VARCHAR(2) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '';

ALTER TABLE site_record ADD COLUMN IF NOT EXISTS wireless_names VARCHAR(4) NOT NULL DEFAULT 'one';

ALTER TABLE site_record ADD COLUMN IF NOT EXISTS radar_channels VARCHAR(7) NOT NULL DEFAULT 'used';

CREATE TABLE ssid (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(32) NOT NULL,
  vlan_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  security VARCHAR(20) NOT NULL,
  bands VARCHAR(7) NOT NULL,
  isolated BOOLEAN NOT NULL,
  portal BOOLEAN NOT NULL,
  hidden BOOLEAN NOT NULL,
  schedule VARCHAR(80) NOT NULL,
  minimum_rate VARCHAR(3) NOT NULL,
  cannot_wait BOOLEAN NOT NULL,
  key_set VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NULL,
  key_kept VARCHAR(80) NOT NULL,
  rank_key VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT ssid_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT ssid_vlan FOREIGN KEY (site_id, vlan_id) REFERENCES vlan (site_id, id)
);

CREATE TABLE ssid_on (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT ssid_on_owner FOREIGN KEY (site_id, owner_id) REFERENCES ssid (site_id, id) ON DELETE CASCADE,
  CONSTRAINT ssid_on_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);

ALTER TABLE interface ADD COLUMN IF NOT EXISTS joins_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL;

ALTER TABLE interface ADD CONSTRAINT interface_joins FOREIGN KEY IF NOT EXISTS (site_id, joins_id) REFERENCES ssid (site_id, id);

CREATE TABLE radio (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  band VARCHAR(3) NOT NULL,
  enabled BOOLEAN NOT NULL,
  channel TINYINT UNSIGNED NULL,
  width VARCHAR(3) NOT NULL,
  power TINYINT UNSIGNED NULL,
  beacon_interval SMALLINT UNSIGNED NOT NULL,
  kept BOOLEAN NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT radio_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT radio_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);

CREATE TABLE spot (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  floor SMALLINT NOT NULL,
  x INT NOT NULL,
  y INT NOT NULL,
  outdoors BOOLEAN NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT spot_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT spot_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);

CREATE TABLE wall (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  floor SMALLINT NOT NULL,
  from_x INT NOT NULL,
  from_y INT NOT NULL,
  to_x INT NOT NULL,
  to_y INT NOT NULL,
  loss TINYINT UNSIGNED NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT wall_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);

CREATE TABLE level (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  at_device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  of_device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  band VARCHAR(3) NOT NULL,
  dbm TINYINT NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT level_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT level_at_device FOREIGN KEY (site_id, at_device_id) REFERENCES device (site_id, id),
  CONSTRAINT level_of_device FOREIGN KEY (site_id, of_device_id) REFERENCES device (site_id, id)
);

CREATE TABLE foreign_ssid (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(32) NOT NULL,
  at_device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  band VARCHAR(3) NOT NULL,
  channel TINYINT UNSIGNED NOT NULL,
  width VARCHAR(3) NOT NULL,
  dbm TINYINT NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT foreign_ssid_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT foreign_ssid_at_device FOREIGN KEY (site_id, at_device_id) REFERENCES device (site_id, id)
);

ALTER TABLE question ADD COLUMN IF NOT EXISTS from_ssid_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL;

ALTER TABLE question ADD CONSTRAINT question_from_ssid FOREIGN KEY IF NOT EXISTS (site_id, from_ssid_id) REFERENCES ssid (site_id, id);
