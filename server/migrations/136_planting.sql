CREATE TABLE IF NOT EXISTS planting (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  place_id UUID NOT NULL,
  crop VARCHAR(80) NOT NULL COMMENT 'crop of the library',
  variety VARCHAR(120) NOT NULL DEFAULT '',
  stands_from DATE NOT NULL COMMENT 'first day on which it stands there, or was known to',
  stands_until DATE NULL COMMENT 'the day on which it was cleared; null while it stands',
  note VARCHAR(2000) NOT NULL DEFAULT '',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  KEY of_site (site_id, stands_from),
  CHECK (stands_until IS NULL OR stands_from <= stands_until),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (place_id) REFERENCES place (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
