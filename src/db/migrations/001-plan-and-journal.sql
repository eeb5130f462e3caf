CREATE TABLE site (
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  revision INT UNSIGNED NOT NULL,
  archived_at DATETIME(3) NULL,
  created_at DATETIME(3) NOT NULL,
  changed_at DATETIME(3) NOT NULL
);

CREATE TABLE site_record (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(80) NOT NULL,
  kind VARCHAR(20) NOT NULL,
  numbering VARCHAR(20) NOT NULL,
  sizing VARCHAR(20) NOT NULL,
  fixed VARCHAR(20) NOT NULL,
  reservation_in_pool BOOLEAN NOT NULL,
  management VARCHAR(20) NOT NULL,
  infrastructure_band INT UNSIGNED NOT NULL,
  fixed_band INT UNSIGNED NOT NULL,
  gateway_habit VARCHAR(10) NOT NULL,
  naming_pattern VARCHAR(60) NOT NULL,
  domain VARCHAR(120) NOT NULL,
  documentation BOOLEAN NOT NULL,
  time_zone VARCHAR(60) NOT NULL,
  notes TEXT NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT site_record_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);

CREATE TABLE site_space (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  prefix_v4 INT UNSIGNED NULL,
  prefix_v6 BINARY(16) NULL,
  prefix_len TINYINT UNSIGNED NOT NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT site_space_owner FOREIGN KEY (site_id, owner_id) REFERENCES site_record (site_id, id) ON DELETE CASCADE
);

CREATE TABLE site_foreign (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  prefix_v4 INT UNSIGNED NULL,
  prefix_v6 BINARY(16) NULL,
  prefix_len TINYINT UNSIGNED NOT NULL,
  why VARCHAR(120) NOT NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT site_foreign_owner FOREIGN KEY (site_id, owner_id) REFERENCES site_record (site_id, id) ON DELETE CASCADE
);

CREATE TABLE lan (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(60) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT lan_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);

CREATE TABLE vlan (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  lan_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  vid SMALLINT UNSIGNED NOT NULL,
  code VARCHAR(3) NOT NULL,
  name VARCHAR(60) NOT NULL,
  colour CHAR(7) CHARACTER SET ascii NOT NULL,
  purpose VARCHAR(20) NOT NULL,
  internet BOOLEAN NOT NULL,
  devices INT UNSIGNED NOT NULL,
  growth INT UNSIGNED NOT NULL,
  transient_present INT UNSIGNED NULL,
  transient_arrivals INT UNSIGNED NULL,
  transient_hours INT UNSIGNED NULL,
  rank_key VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT vlan_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT vlan_lan FOREIGN KEY (site_id, lan_id) REFERENCES lan (site_id, id)
);

CREATE TABLE device (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(80) NOT NULL,
  kind VARCHAR(20) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT device_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);

CREATE TABLE interface (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  kind VARCHAR(20) NOT NULL,
  vlan_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  mac CHAR(17) CHARACTER SET ascii NULL,
  name VARCHAR(60) NOT NULL,
  own_length TINYINT UNSIGNED NULL,
  own_gateway_v4 INT UNSIGNED NULL,
  own_gateway_v6 BINARY(16) NULL,
  own_dns VARCHAR(2000) CHARACTER SET ascii NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT interface_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT interface_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id),
  CONSTRAINT interface_vlan FOREIGN KEY (site_id, vlan_id) REFERENCES vlan (site_id, id)
);

CREATE TABLE subnet (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  vlan_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  prefix_v4 INT UNSIGNED NULL,
  prefix_v6 BINARY(16) NULL,
  prefix_len TINYINT UNSIGNED NOT NULL,
  pinned BOOLEAN NOT NULL,
  domain VARCHAR(120) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT subnet_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT subnet_vlan FOREIGN KEY (site_id, vlan_id) REFERENCES vlan (site_id, id)
);

CREATE TABLE subnet_dns (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  interface_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  literal_v4 INT UNSIGNED NULL,
  literal_v6 BINARY(16) NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT subnet_dns_owner FOREIGN KEY (site_id, owner_id) REFERENCES subnet (site_id, id) ON DELETE CASCADE,
  CONSTRAINT subnet_dns_interface FOREIGN KEY (site_id, interface_id) REFERENCES interface (site_id, id)
);

CREATE TABLE pool (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  subnet_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  start_v4 INT UNSIGNED NULL,
  start_v6 BINARY(16) NULL,
  end_v4 INT UNSIGNED NULL,
  end_v6 BINARY(16) NULL,
  lease INT UNSIGNED NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT pool_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT pool_subnet FOREIGN KEY (site_id, subnet_id) REFERENCES subnet (site_id, id)
);

CREATE TABLE pool_server (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  interface_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT pool_server_owner FOREIGN KEY (site_id, owner_id) REFERENCES pool (site_id, id) ON DELETE CASCADE,
  CONSTRAINT pool_server_interface FOREIGN KEY (site_id, interface_id) REFERENCES interface (site_id, id)
);

CREATE TABLE exclusion (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  subnet_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  start_v4 INT UNSIGNED NULL,
  start_v6 BINARY(16) NULL,
  end_v4 INT UNSIGNED NULL,
  end_v6 BINARY(16) NULL,
  why VARCHAR(120) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT exclusion_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT exclusion_subnet FOREIGN KEY (site_id, subnet_id) REFERENCES subnet (site_id, id)
);

CREATE TABLE address (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  subnet_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  address_v4 INT UNSIGNED NULL,
  address_v6 BINARY(16) NULL,
  interface_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  assignment VARCHAR(20) NOT NULL,
  gateway BOOLEAN NOT NULL,
  note VARCHAR(200) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT address_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT address_subnet FOREIGN KEY (site_id, subnet_id) REFERENCES subnet (site_id, id),
  CONSTRAINT address_interface FOREIGN KEY (site_id, interface_id) REFERENCES interface (site_id, id)
);

CREATE TABLE acceptance (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  finding VARCHAR(200) NOT NULL,
  evidence TEXT NOT NULL,
  reason VARCHAR(400) NOT NULL,
  who VARCHAR(60) NOT NULL,
  at DATETIME(3) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT acceptance_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);

CREATE TABLE journal (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  revision INT UNSIGNED NOT NULL,
  seed VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  kind VARCHAR(10) NOT NULL,
  label VARCHAR(500) NOT NULL,
  operation VARCHAR(40) NOT NULL,
  input LONGTEXT NOT NULL,
  steps LONGTEXT NOT NULL,
  format SMALLINT UNSIGNED NOT NULL,
  author VARCHAR(60) NOT NULL,
  at DATETIME(3) NOT NULL,
  undoes INT UNSIGNED NULL,
  PRIMARY KEY (site_id, revision),
  UNIQUE KEY journal_seed (site_id, seed),
  CONSTRAINT journal_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);

CREATE TABLE named_revision (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  revision INT UNSIGNED NOT NULL,
  name VARCHAR(80) NOT NULL,
  author VARCHAR(60) NOT NULL,
  at DATETIME(3) NOT NULL,
  PRIMARY KEY (site_id, revision),
  CONSTRAINT named_revision_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);
