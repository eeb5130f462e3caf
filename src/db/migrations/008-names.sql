RENAME TABLE IF EXISTS offer TO listener;

RENAME TABLE IF EXISTS aggregate TO port_lag;

RENAME TABLE IF EXISTS tree_port TO stp_port;

ALTER TABLE port CHANGE COLUMN IF EXISTS aggregate_id lag_id VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin NULL;
