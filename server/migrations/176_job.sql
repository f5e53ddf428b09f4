CREATE TABLE IF NOT EXISTS job (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  place_id UUID NOT NULL,
  name VARCHAR(120) NOT NULL,
  kind VARCHAR(20) NOT NULL COMMENT 'crop-work, picking, sowing, release, watering or other',
  planned_on DATE NOT NULL,
  done_on DATE NULL,
  note TEXT NOT NULL,
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
  deleted_at DATETIME NULL,
  KEY of_site (site_id, planned_on),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (place_id) REFERENCES place (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
