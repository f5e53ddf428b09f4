CREATE TABLE IF NOT EXISTS typed_day (
  station_id UUID NOT NULL,
  day DATE NOT NULL COMMENT 'standard time of the station',
  site_id UUID NOT NULL,
  min_temperature DOUBLE NOT NULL COMMENT '°C',
  max_temperature DOUBLE NOT NULL COMMENT '°C',
  rain DOUBLE NULL COMMENT 'mm in the day',
  changed_by UUID NOT NULL,
  PRIMARY KEY (station_id, day),
  CHECK (min_temperature <= max_temperature),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (station_id) REFERENCES station (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
