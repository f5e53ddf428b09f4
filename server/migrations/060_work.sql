CREATE TABLE IF NOT EXISTS work (
  id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  kind VARCHAR(30) NOT NULL,
  subject VARCHAR(40) NOT NULL COMMENT 'what it is done for: a site, or nothing',
  version BIGINT UNSIGNED NOT NULL DEFAULT 1 COMMENT 'raised whenever it is asked for again',
  not_before DATETIME(3) NOT NULL,
  claimed_by VARCHAR(60) NULL,
  lease_until DATETIME(3) NULL COMMENT 'who claimed it has died if this has passed',
  attempts INT UNSIGNED NOT NULL DEFAULT 0 COMMENT 'failed so often since it was asked for; at five it is dead',
  failure VARCHAR(500) NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  UNIQUE KEY once (kind, subject),
  KEY due (not_before)
) ENGINE=InnoDB CHARSET=utf8mb4
