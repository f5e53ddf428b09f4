ALTER TABLE reading_fix
  MODIFY COLUMN variable ENUM('temperature', 'humidity', 'rain', 'wind', 'wetness', 'soil', 'direction') NOT NULL
