CREATE TABLE pairing (
  digest BINARY(32) NOT NULL,
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  run VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  kind ENUM('offer', 'phone') CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  until DATETIME(3) NOT NULL,
  PRIMARY KEY (digest),
  KEY pairing_site (site_id, run),
  CONSTRAINT pairing_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);
