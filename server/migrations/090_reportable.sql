CREATE TABLE IF NOT EXISTS reportable (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  organism_id VARCHAR(80) NOT NULL COMMENT 'must be reported where this site lies',
  whom VARCHAR(500) NOT NULL COMMENT 'whom to tell, and how',
  note VARCHAR(2000) NOT NULL DEFAULT '',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  live TINYINT AS (IF(deleted_at IS NULL, 1, NULL)) PERSISTENT,
  UNIQUE KEY once (site_id, organism_id, live),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
