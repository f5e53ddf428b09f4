CREATE TABLE IF NOT EXISTS site_derived (
  site_id UUID PRIMARY KEY,
  season DATE NOT NULL,
  today DATE NOT NULL COMMENT 'civil day of the site',
  station_days VARCHAR(100) NOT NULL COMMENT 'days of standard time of its stations, as numbers',
  derived_at DATETIME NOT NULL COMMENT 'UTC, by the clock of the site',
  format INT UNSIGNED NOT NULL,
  inputs_version BIGINT UNSIGNED NOT NULL COMMENT 'up to which everything of the site was derived',
  key_hash CHAR(64) NOT NULL,
  season_picture MEDIUMBLOB NOT NULL COMMENT 'the heat axis and the blooms of the season; JSON, gzip',
  FOREIGN KEY (site_id) REFERENCES site (id)
) ENGINE=InnoDB CHARSET=utf8mb4
