CREATE TABLE IF NOT EXISTS passkey (
  id UUID PRIMARY KEY,
  credential_id VARBINARY(1023) NOT NULL,
  person_id UUID NOT NULL,
  public_key BLOB NOT NULL,
  counter BIGINT UNSIGNED NOT NULL COMMENT 'one that falls back is a copy',
  transports VARCHAR(100) NOT NULL DEFAULT '',
  name VARCHAR(120) NOT NULL,
  created_at DATETIME NOT NULL,
  used_at DATETIME NULL,
  UNIQUE KEY by_credential (credential_id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
