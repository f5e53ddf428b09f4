CREATE TABLE IF NOT EXISTS replacement (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  place_id UUID NOT NULL,
  organism_id VARCHAR(80) NULL COMMENT 'in whose place',
  area_m2 DOUBLE NOT NULL CHECK (area_m2 > 0),
  plants JSON NOT NULL COMMENT 'wanted plants, each with its share of the ground',
  job_id UUID NOT NULL COMMENT 'the work of the schedule that it is',
  note VARCHAR(2000) NOT NULL DEFAULT '',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  KEY of_site (site_id),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (place_id) REFERENCES place (id),
  FOREIGN KEY (job_id) REFERENCES job (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
