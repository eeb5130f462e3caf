CREATE TABLE access (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(40) NOT NULL,
  mode VARCHAR(7) NOT NULL,
  methods VARCHAR(9) NOT NULL,
  hosts VARCHAR(13) NOT NULL,
  period SMALLINT UNSIGNED NOT NULL,
  tries TINYINT UNSIGNED NOT NULL,
  takes_vlan BOOLEAN NOT NULL,
  takes_list BOOLEAN NOT NULL,
  guest_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  failed_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  critical_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  again INT UNSIGNED NULL,
  accounting BOOLEAN NOT NULL,
  server_group VARCHAR(40) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT access_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT access_guest FOREIGN KEY (site_id, guest_id) REFERENCES vlan (site_id, id),
  CONSTRAINT access_failed FOREIGN KEY (site_id, failed_id) REFERENCES vlan (site_id, id),
  CONSTRAINT access_critical FOREIGN KEY (site_id, critical_id) REFERENCES vlan (site_id, id)
);

CREATE TABLE access_service (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  service_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT access_service_owner FOREIGN KEY (site_id, owner_id) REFERENCES access (site_id, id) ON DELETE CASCADE
);

ALTER TABLE port_guard ADD COLUMN access_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL;

ALTER TABLE port_guard ADD CONSTRAINT port_guard_access FOREIGN KEY (site_id, access_id) REFERENCES access (site_id, id);

CREATE TABLE radius (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  address_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  server_group VARCHAR(40) NOT NULL,
  port SMALLINT UNSIGNED NOT NULL,
  accounting SMALLINT UNSIGNED NOT NULL,
  change_port SMALLINT UNSIGNED NULL,
  wait_seconds TINYINT UNSIGNED NOT NULL,
  tries TINYINT UNSIGNED NOT NULL,
  dead_minutes SMALLINT UNSIGNED NOT NULL,
  tester VARCHAR(40) NOT NULL,
  secret_set VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NULL,
  secret_kept VARCHAR(80) NOT NULL,
  rank_key VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT radius_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT radius_address FOREIGN KEY (site_id, address_id) REFERENCES address (site_id, id)
);

CREATE TABLE identity (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  known_by VARCHAR(7) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT identity_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT identity_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);
