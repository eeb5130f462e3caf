CREATE TABLE telephony (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  vlan_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  boot VARCHAR(200) NOT NULL,
  boot_option VARCHAR(3) NOT NULL,
  registrar VARCHAR(200) NOT NULL,
  tag_priority TINYINT UNSIGNED NOT NULL,
  voice_dscp TINYINT UNSIGNED NOT NULL,
  signalling_dscp TINYINT UNSIGNED NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT telephony_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT telephony_vlan FOREIGN KEY (site_id, vlan_id) REFERENCES vlan (site_id, id)
);

CREATE TABLE voice_hop (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  announces VARCHAR(7) NOT NULL,
  marks VARCHAR(7) NOT NULL,
  voice_first VARCHAR(7) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT voice_hop_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT voice_hop_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);
