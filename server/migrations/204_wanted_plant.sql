CREATE TABLE IF NOT EXISTS wanted_plant (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  name VARCHAR(80) NOT NULL,
  begins ENUM('planted', 'sown') NOT NULL,
  spacing_cm DOUBLE NULL CHECK (spacing_cm >= 1),
  grams_per_m2 DOUBLE NULL CHECK (grams_per_m2 > 0),
  months JSON NOT NULL COMMENT 'in which it is planted or sown, 1 to 12',
  note VARCHAR(2000) NOT NULL DEFAULT '',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  KEY of_site (site_id),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
