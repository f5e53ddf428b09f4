CREATE TABLE IF NOT EXISTS round (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  watch_id UUID NOT NULL,
  check_area_id UUID NULL COMMENT 'null: in the block itself',
  counted_on DATE NOT NULL,
  units JSON NOT NULL COMMENT 'one object per sample unit: class to count',
  note VARCHAR(2000) NOT NULL DEFAULT '',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  KEY by_watch (watch_id, counted_on),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (watch_id) REFERENCES watch (id),
  FOREIGN KEY (check_area_id) REFERENCES check_area (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
