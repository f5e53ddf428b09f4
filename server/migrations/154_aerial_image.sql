CREATE TABLE IF NOT EXISTS aerial_image (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  name VARCHAR(120) NOT NULL,
  south DOUBLE NOT NULL,
  west DOUBLE NOT NULL,
  north DOUBLE NOT NULL,
  east DOUBLE NOT NULL,
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  KEY of_site (site_id),
  CHECK (north > south AND east > west),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
