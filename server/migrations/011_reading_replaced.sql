CREATE TABLE IF NOT EXISTS reading_replaced (
  import_id UUID NOT NULL COMMENT 'the import that replaced it',
  at DATETIME NOT NULL,
  site_id UUID NOT NULL,
  temperature DOUBLE NULL,
  humidity DOUBLE NULL,
  rain DOUBLE NULL,
  wind DOUBLE NULL,
  from_import_id UUID NULL,
  PRIMARY KEY (import_id, at),
  FOREIGN KEY (import_id) REFERENCES weather_import (id)
) ENGINE=InnoDB CHARSET=utf8mb4
