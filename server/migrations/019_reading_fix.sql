CREATE TABLE IF NOT EXISTS reading_fix (
  station_id UUID NOT NULL,
  at DATETIME NOT NULL COMMENT 'UTC',
  variable ENUM('temperature', 'humidity', 'rain', 'wind') NOT NULL,
  site_id UUID NOT NULL,
  flag ENUM('range', 'step', 'flat-line', 'spike', 'gap') NOT NULL,
  value DOUBLE NULL COMMENT 'stands in for the reading; null: unknown',
  method ENUM('interpolated', 'neighbour', 'climatology', 'unknown') NOT NULL,
  decision ENUM('open', 'accepted', 'overruled') NOT NULL DEFAULT 'open' COMMENT 'overruled: the reading is believed',
  decided_by UUID NULL,
  PRIMARY KEY (station_id, at, variable),
  FOREIGN KEY (station_id) REFERENCES station (id),
  FOREIGN KEY (decided_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
