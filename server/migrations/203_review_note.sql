CREATE TABLE IF NOT EXISTS review_note (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  place_id UUID NOT NULL COMMENT 'a block',
  season DATE NOT NULL COMMENT 'its first day',
  said TEXT NOT NULL COMMENT 'what those who work there say of the season themselves',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  live TINYINT AS (IF(deleted_at IS NULL, 1, NULL)) PERSISTENT,
  UNIQUE KEY once (place_id, season, live),
  KEY of_site (site_id, season),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (place_id) REFERENCES place (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
