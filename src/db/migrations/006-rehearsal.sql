CREATE TABLE bridge (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  tree_mode VARCHAR(16) NOT NULL,
  priority INT UNSIGNED NOT NULL,
  cost_scale VARCHAR(8) NOT NULL,
  hello TINYINT UNSIGNED NOT NULL,
  max_age TINYINT UNSIGNED NOT NULL,
  forward_delay TINYINT UNSIGNED NOT NULL,
  max_hops TINYINT UNSIGNED NOT NULL,
  region VARCHAR(32) NOT NULL,
  revision SMALLINT UNSIGNED NOT NULL,
  ring_manager BOOLEAN NOT NULL,
  recovery_ms INT UNSIGNED NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT bridge_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT bridge_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);

CREATE TABLE bridge_ring_port (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  port_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT bridge_ring_port_owner FOREIGN KEY (site_id, owner_id) REFERENCES bridge (site_id, id) ON DELETE CASCADE,
  CONSTRAINT bridge_ring_port_port FOREIGN KEY (site_id, port_id) REFERENCES port (site_id, id)
);

CREATE TABLE tree_instance (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  instance_number SMALLINT UNSIGNED NOT NULL,
  vids MEDIUMTEXT NOT NULL,
  priority INT UNSIGNED NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT tree_instance_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT tree_instance_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);

CREATE TABLE tree_port (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  port_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  instance_number SMALLINT UNSIGNED NOT NULL,
  path_cost INT UNSIGNED NULL,
  priority SMALLINT UNSIGNED NOT NULL,
  edge BOOLEAN NOT NULL,
  guard_kind VARCHAR(8) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT tree_port_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT tree_port_port FOREIGN KEY (site_id, port_id) REFERENCES port (site_id, id)
);

CREATE TABLE question (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  rank_key VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  from_port_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  from_device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  from_vlan_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  to_device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  to_vlan_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  to_address_v4 INT UNSIGNED NULL,
  to_address_v6 BINARY(16) NULL,
  to_gateway BOOLEAN NOT NULL,
  protocol VARCHAR(8) NOT NULL,
  port SMALLINT UNSIGNED NOT NULL,
  expected VARCHAR(16) NOT NULL,
  why VARCHAR(200) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT question_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT question_from_port FOREIGN KEY (site_id, from_port_id) REFERENCES port (site_id, id),
  CONSTRAINT question_from_device FOREIGN KEY (site_id, from_device_id) REFERENCES device (site_id, id),
  CONSTRAINT question_from_vlan FOREIGN KEY (site_id, from_vlan_id) REFERENCES vlan (site_id, id),
  CONSTRAINT question_to_device FOREIGN KEY (site_id, to_device_id) REFERENCES device (site_id, id),
  CONSTRAINT question_to_vlan FOREIGN KEY (site_id, to_vlan_id) REFERENCES vlan (site_id, id)
);

CREATE TABLE dhcp_relay (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  interface_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT dhcp_relay_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT dhcp_relay_interface FOREIGN KEY (site_id, interface_id) REFERENCES interface (site_id, id)
);

CREATE TABLE dhcp_relay_server (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  owner_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  pos INT UNSIGNED NOT NULL,
  interface_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, owner_id, pos),
  CONSTRAINT dhcp_relay_server_owner FOREIGN KEY (site_id, owner_id) REFERENCES dhcp_relay (site_id, id) ON DELETE CASCADE,
  CONSTRAINT dhcp_relay_server_interface FOREIGN KEY (site_id, interface_id) REFERENCES interface (site_id, id)
);
