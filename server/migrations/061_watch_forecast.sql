CREATE TABLE IF NOT EXISTS watch_forecast (
  watch_id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  season DATE NOT NULL,
  format INT UNSIGNED NOT NULL COMMENT 'of the statement; one of another format is made anew',
  inputs_version BIGINT UNSIGNED NOT NULL COMMENT 'of what the site rests on when it was made; a later one is never put under an earlier',
  today DATE NOT NULL COMMENT 'the day of the station for which it is stated',
  weather_key VARCHAR(400) NOT NULL,
  model_hash CHAR(64) NOT NULL,
  key_hash CHAR(64) NOT NULL COMMENT 'of everything that it rests on',
  statement MEDIUMBLOB NOT NULL COMMENT 'JSON, gzip',
  made_at DATETIME(3) NOT NULL,
  KEY by_season (site_id, season),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (watch_id) REFERENCES watch (id)
) ENGINE=InnoDB CHARSET=utf8mb4
