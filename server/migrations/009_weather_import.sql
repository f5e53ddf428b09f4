CREATE TABLE IF NOT EXISTS weather_import (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  station_id UUID NOT NULL,
  file_name VARCHAR(255) NOT NULL,
  mapping JSON NOT NULL,
  result JSON NOT NULL COMMENT 'counts of lines, as shown',
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  KEY by_site (site_id, created_at),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (station_id) REFERENCES station (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
