CREATE TABLE vlan_guard (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  vlan_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  snooping BOOLEAN NOT NULL,
  inspection BOOLEAN NOT NULL,
  source_guard BOOLEAN NOT NULL,
  ra_guard BOOLEAN NOT NULL,
  dhcp6_guard BOOLEAN NOT NULL,
  option82 BOOLEAN NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT vlan_guard_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT vlan_guard_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id),
  CONSTRAINT vlan_guard_vlan FOREIGN KEY (site_id, vlan_id) REFERENCES vlan (site_id, id)
);

CREATE TABLE port_guard (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  port_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  trusts_dhcp BOOLEAN NOT NULL,
  trusts_arp BOOLEAN NOT NULL,
  trusts_routers BOOLEAN NOT NULL,
  dhcp_rate SMALLINT UNSIGNED NULL,
  arp_rate SMALLINT UNSIGNED NULL,
  mac_limit SMALLINT UNSIGNED NULL,
  mac_sticky BOOLEAN NOT NULL,
  mac_action VARCHAR(4) NOT NULL,
  storm TINYINT UNSIGNED NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT port_guard_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT port_guard_port FOREIGN KEY (site_id, port_id) REFERENCES port (site_id, id)
);

CREATE TABLE binding (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  address_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT binding_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT binding_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id),
  CONSTRAINT binding_address FOREIGN KEY (site_id, address_id) REFERENCES address (site_id, id)
);
