CREATE TABLE present_state (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  box_state VARCHAR(11) NOT NULL,
  address_v4 INT UNSIGNED NULL,
  address_v6 BINARY(16) NULL,
  mask_length TINYINT UNSIGNED NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT present_state_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT present_state_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);
