CREATE TABLE IF NOT EXISTS map_position (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL,
  right_px INT NOT NULL,
  down_px INT NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT map_position_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT map_position_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);
