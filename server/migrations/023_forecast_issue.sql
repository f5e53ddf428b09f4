CREATE TABLE IF NOT EXISTS forecast_issue (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  station_id UUID NOT NULL COMMENT 'the place that it is for',
  issued_at DATETIME NOT NULL COMMENT 'UTC',
  first_hour DATETIME NOT NULL COMMENT 'UTC',
  hours SMALLINT UNSIGNED NOT NULL,
  members JSON NOT NULL COMMENT 'per member and variable the values hour by hour',
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  UNIQUE KEY one_per_moment (station_id, issued_at),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (station_id) REFERENCES station (id)
) ENGINE=InnoDB CHARSET=utf8mb4
