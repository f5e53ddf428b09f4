CREATE TABLE IF NOT EXISTS daily_replaced (
  import_id UUID NOT NULL COMMENT 'the import that replaced it',
  day DATE NOT NULL,
  site_id UUID NOT NULL,
  min_temperature DOUBLE NOT NULL,
  max_temperature DOUBLE NOT NULL,
  rain DOUBLE NULL,
  from_import_id UUID NOT NULL,
  PRIMARY KEY (import_id, day),
  FOREIGN KEY (import_id) REFERENCES weather_import (id)
) ENGINE=InnoDB CHARSET=utf8mb4
