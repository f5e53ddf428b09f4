CREATE TABLE IF NOT EXISTS trap_lure (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  trap_id UUID NOT NULL,
  lure VARCHAR(120) NOT NULL,
  lure_load VARCHAR(80) NOT NULL DEFAULT '',
  hung_on DATE NOT NULL,
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  UNIQUE KEY once_a_day (trap_id, hung_on),
  KEY of_site (site_id),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (trap_id) REFERENCES trap (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
