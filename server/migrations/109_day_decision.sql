CREATE TABLE IF NOT EXISTS day_decision (
  station_id UUID NOT NULL,
  day DATE NOT NULL COMMENT 'standard time of the station',
  site_id UUID NOT NULL,
  decision ENUM('accepted', 'overruled') NOT NULL COMMENT 'of a doubted day of a file',
  decided_by UUID NOT NULL,
  PRIMARY KEY (station_id, day),
  FOREIGN KEY (station_id) REFERENCES station (id),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (decided_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
