CREATE TABLE IF NOT EXISTS notice (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  treatment_id UUID NOT NULL,
  to_whom VARCHAR(120) NOT NULL,
  way ENUM('told', 'printed', 'sent') NOT NULL,
  given_on DATE NOT NULL,
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  KEY of_site (site_id),
  KEY of_treatment (treatment_id),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (treatment_id) REFERENCES deed (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
