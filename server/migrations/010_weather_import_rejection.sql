CREATE TABLE IF NOT EXISTS weather_import_rejection (
  import_id UUID NOT NULL,
  line INT UNSIGNED NOT NULL,
  site_id UUID NOT NULL,
  reason VARCHAR(300) NOT NULL,
  content VARCHAR(500) NOT NULL,
  PRIMARY KEY (import_id, line),
  FOREIGN KEY (import_id) REFERENCES weather_import (id)
) ENGINE=InnoDB CHARSET=utf8mb4
