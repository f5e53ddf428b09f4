CREATE TABLE IF NOT EXISTS plant_event (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  place_id UUID NOT NULL,
  happened VARCHAR(20) NOT NULL CHECK (happened IN ('affected', 'rescued', 'lost', 'replaced')),
  plants INT UNSIGNED NOT NULL CHECK (plants > 0),
  organism_id VARCHAR(80) NULL COMMENT 'by what, where that is known',
  happened_on DATE NOT NULL,
  note VARCHAR(2000) NOT NULL DEFAULT '',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  KEY of_place (site_id, place_id, happened_on),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (place_id) REFERENCES place (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
