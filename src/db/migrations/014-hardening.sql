CREATE TABLE hardening (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  device_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  item VARCHAR(10) NOT NULL,
  done VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  done_by VARCHAR(80) NOT NULL,
  PRIMARY KEY (site_id, id),
  CONSTRAINT hardening_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE,
  CONSTRAINT hardening_device FOREIGN KEY (site_id, device_id) REFERENCES device (site_id, id)
);
