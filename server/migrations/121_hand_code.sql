CREATE TABLE IF NOT EXISTS hand_code (
  person_id UUID PRIMARY KEY,
  code_hash VARCHAR(255) NOT NULL COMMENT 'argon2id; opens nothing but on a paired phone',
  tries INT UNSIGNED NOT NULL DEFAULT 0 COMMENT 'since it last opened something',
  changed_at DATETIME NOT NULL,
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB
