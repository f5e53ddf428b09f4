CREATE TABLE IF NOT EXISTS wet_event (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  block_id UUID NOT NULL,
  kind ENUM('overhead-watering', 'condensation') NOT NULL,
  started_at DATETIME NOT NULL COMMENT 'UTC',
  ended_at DATETIME NOT NULL COMMENT 'UTC',
  water_mm DOUBLE NULL COMMENT 'mm that reached the ground' CHECK (water_mm >= 0),
  note VARCHAR(2000) NOT NULL DEFAULT '',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  KEY of_block (block_id, started_at),
  CHECK (started_at < ended_at),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (block_id) REFERENCES block (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
