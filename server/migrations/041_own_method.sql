CREATE TABLE IF NOT EXISTS own_method (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  method_id VARCHAR(80) NOT NULL COMMENT 'begins with own-, so that it never meets a library entry',
  name VARCHAR(200) NOT NULL,
  entry JSON NOT NULL COMMENT 'as it was written or imported',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  live TINYINT AS (IF(deleted_at IS NULL, 1, NULL)) PERSISTENT,
  UNIQUE KEY once (site_id, method_id, live),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
