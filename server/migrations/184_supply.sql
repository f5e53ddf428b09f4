CREATE TABLE IF NOT EXISTS supply (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  treatment_id UUID NOT NULL COMMENT 'the planned treatment that it was ordered for',
  ordered_on DATE NULL,
  arrived_on DATE NULL,
  alive DOUBLE NULL COMMENT 'share that was alive under a lens' CHECK (alive BETWEEN 0 AND 1),
  note VARCHAR(500) NOT NULL,
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
  deleted_at DATETIME NULL,
  UNIQUE KEY once (treatment_id),
  KEY of_site (site_id),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (treatment_id) REFERENCES deed (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
