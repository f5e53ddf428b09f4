CREATE TABLE IF NOT EXISTS monthly_normals (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  months JSON NOT NULL COMMENT 'January first: mean minimum and maximum in °C, rain in mm',
  source VARCHAR(200) NOT NULL DEFAULT '',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  live TINYINT AS (IF(deleted_at IS NULL, 1, NULL)) PERSISTENT,
  UNIQUE KEY one_per_site (site_id, live),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
