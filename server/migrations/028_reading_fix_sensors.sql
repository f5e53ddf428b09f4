ALTER TABLE reading_fix
  MODIFY COLUMN variable ENUM('temperature', 'humidity', 'rain', 'wind', 'wetness', 'soil') NOT NULL,
  MODIFY COLUMN flag ENUM('range', 'step', 'flat-line', 'spike', 'gap', 'drift') NOT NULL
