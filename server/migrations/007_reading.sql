CREATE TABLE IF NOT EXISTS reading (
  station_id UUID NOT NULL,
  at DATETIME NOT NULL COMMENT 'UTC, the hour that begins here',
  site_id UUID NOT NULL,
  temperature DOUBLE NULL COMMENT '°C',
  humidity DOUBLE NULL COMMENT '%',
  rain DOUBLE NULL COMMENT 'mm in the hour',
  wind DOUBLE NULL COMMENT 'm/s',
  import_id UUID NOT NULL,
  PRIMARY KEY (station_id, at),
  FOREIGN KEY (station_id) REFERENCES station (id)
) ENGINE=InnoDB CHARSET=utf8mb4
