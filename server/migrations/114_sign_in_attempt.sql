CREATE TABLE IF NOT EXISTS sign_in_attempt (
  of BINARY(32) PRIMARY KEY COMMENT 'SHA-256 of a sign-in name or an address',
  failures INT UNSIGNED NOT NULL,
  last_at DATETIME(3) NOT NULL
) ENGINE=InnoDB
