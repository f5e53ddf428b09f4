CREATE TABLE IF NOT EXISTS check_area (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  block_id UUID NOT NULL,
  name VARCHAR(120) NOT NULL,
  note VARCHAR(2000) NOT NULL DEFAULT '',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  live TINYINT AS (IF(deleted_at IS NULL, 1, NULL)) PERSISTENT,
  UNIQUE KEY name_in_block (block_id, name, live),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (block_id) REFERENCES block (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
