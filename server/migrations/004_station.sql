CREATE TABLE IF NOT EXISTS station (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  name VARCHAR(120) NOT NULL,
  utc_offset_minutes SMALLINT NOT NULL CHECK (utc_offset_minutes BETWEEN -840 AND 840),
  history_version INT UNSIGNED NOT NULL DEFAULT 0 COMMENT 'rises with every change of its readings',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  live TINYINT AS (IF(deleted_at IS NULL, 1, NULL)) PERSISTENT,
  UNIQUE KEY name_in_site (site_id, name, live),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
