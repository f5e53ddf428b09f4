CREATE TABLE IF NOT EXISTS passkey_challenge (
  challenge_hash BINARY(32) PRIMARY KEY,
  person_id UUID NULL COMMENT 'who adds a passkey; null: who signs in is not known yet',
  expires_at DATETIME NOT NULL,
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB
