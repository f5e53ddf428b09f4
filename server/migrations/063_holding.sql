CREATE TABLE IF NOT EXISTS holding (
  id UUID PRIMARY KEY,
  name VARCHAR(120) NOT NULL,
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4 COMMENT='owns sites, a shelf, organisms and methods'
