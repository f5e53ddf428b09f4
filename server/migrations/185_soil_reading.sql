CREATE TABLE IF NOT EXISTS soil_reading (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  place_id UUID NOT NULL,
  read_on DATE NOT NULL,
  celsius DOUBLE NOT NULL COMMENT 'at about 10 cm, or in the middle of a pot' CHECK (celsius BETWEEN -20 AND 60),
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
  deleted_at DATETIME NULL,
  KEY of_place (site_id, place_id, read_on),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (place_id) REFERENCES place (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
