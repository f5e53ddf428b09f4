CREATE TABLE IF NOT EXISTS alert_setting (
  site_id UUID NOT NULL,
  person_id UUID NOT NULL,
  mail ENUM('none', 'at-once', 'digest') NOT NULL DEFAULT 'none',
  address VARCHAR(200) NOT NULL DEFAULT '',
  quiet_from TINYINT UNSIGNED NULL COMMENT 'hour of the clock of the site',
  quiet_until TINYINT UNSIGNED NULL,
  urgent_anyway BOOLEAN NOT NULL DEFAULT FALSE,
  digest_hour TINYINT UNSIGNED NOT NULL DEFAULT 6,
  muted JSON NOT NULL COMMENT 'kinds that are told in the application alone',
  seen_at DATETIME(3) NULL COMMENT 'when they looked at all that was told last',
  calendar_hash BINARY(32) NULL COMMENT 'of the link by which a calendar reads',
  calendar_since DATETIME NULL,
  PRIMARY KEY (site_id, person_id),
  UNIQUE KEY calendar (calendar_hash),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
