CREATE TABLE log_entry (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  seq INT UNSIGNED NOT NULL,
  id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  author VARCHAR(60) NOT NULL,
  revision INT UNSIGNED NOT NULL,
  device_at DATETIME(3) NOT NULL,
  received_at DATETIME(3) NOT NULL,
  behind BIGINT NOT NULL,
  body LONGTEXT NOT NULL,
  PRIMARY KEY (site_id, seq),
  UNIQUE KEY log_entry_id (site_id, id),
  CONSTRAINT log_entry_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);
