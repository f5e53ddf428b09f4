CREATE TABLE IF NOT EXISTS phone (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  name VARCHAR(120) NOT NULL,
  pair_hash BINARY(32) NULL COMMENT 'SHA-256 of what it is paired with, once',
  pair_until DATETIME NULL,
  secret_hash BINARY(32) NULL COMMENT 'SHA-256 of its cookie, once it is paired',
  paired_by UUID NOT NULL,
  created_at DATETIME NOT NULL COMMENT 'UTC, by the real clock, as all of these',
  paired_at DATETIME NULL,
  seen_at DATETIME NULL,
  ended_at DATETIME NULL,
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY by_pair (pair_hash),
  UNIQUE KEY by_secret (secret_hash),
  KEY of_site (site_id, ended_at),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (paired_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
