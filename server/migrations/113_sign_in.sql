CREATE TABLE IF NOT EXISTS sign_in (
  token_hash BINARY(32) PRIMARY KEY COMMENT 'SHA-256 of the cookie',
  id UUID NOT NULL,
  person_id UUID NOT NULL,
  how ENUM('password', 'link', 'demo') NOT NULL,
  agent VARCHAR(200) NOT NULL DEFAULT '',
  created_at DATETIME NOT NULL COMMENT 'UTC, by the real clock, as all of these',
  seen_at DATETIME NOT NULL,
  expires_at DATETIME NOT NULL,
  ended_at DATETIME NULL,
  UNIQUE KEY by_id (id),
  KEY of_person (person_id, ended_at),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
