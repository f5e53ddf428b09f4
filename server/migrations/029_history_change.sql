CREATE TABLE IF NOT EXISTS history_change (
  station_id UUID NOT NULL,
  version INT UNSIGNED NOT NULL COMMENT 'history_version that it made',
  first_at DATETIME NULL COMMENT 'UTC, first hour whose reading changed; null: no reading did',
  last_at DATETIME NULL,
  PRIMARY KEY (station_id, version),
  FOREIGN KEY (station_id) REFERENCES station (id)
) ENGINE=InnoDB CHARSET=utf8mb4
