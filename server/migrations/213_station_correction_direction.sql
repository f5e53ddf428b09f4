ALTER TABLE station_correction
  MODIFY COLUMN variable ENUM('temperature', 'humidity', 'rain', 'wind', 'wetness', 'soil', 'direction') NULL COMMENT 'of a unit or a value'
