CREATE TABLE exercise (
  site_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  original_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  original_name VARCHAR(80) NOT NULL,
  original_revision INT UNSIGNED NOT NULL,
  seed INT UNSIGNED NOT NULL,
  level TINYINT UNSIGNED NOT NULL,
  learner VARCHAR(60) NOT NULL,
  faults LONGTEXT NOT NULL,
  hints VARCHAR(100) NOT NULL,
  started_at DATETIME(3) NOT NULL,
  ended_at DATETIME(3) NULL,
  report LONGTEXT NULL,
  KEY exercise_original (original_id),
  CONSTRAINT exercise_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE
);
