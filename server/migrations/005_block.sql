CREATE TABLE IF NOT EXISTS block (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  name VARCHAR(120) NOT NULL,
  kind ENUM('orchard', 'vineyard', 'field', 'bed', 'tunnel', 'pots', 'natural-area') NOT NULL,
  area_ha DOUBLE NULL CHECK (area_ha > 0),
  grows VARCHAR(200) NOT NULL DEFAULT '',
  station_id UUID NULL COMMENT 'null: the first station of the site',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  live TINYINT AS (IF(deleted_at IS NULL, 1, NULL)) PERSISTENT,
  UNIQUE KEY name_in_site (site_id, name, live),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (station_id) REFERENCES station (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
