CREATE TABLE IF NOT EXISTS account (
  person_id UUID PRIMARY KEY,
  sign_in_name VARCHAR(190) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL COMMENT 'lower case',
  password_hash VARCHAR(255) NOT NULL COMMENT 'argon2id, with its own settings',
  created_at DATETIME NOT NULL,
  changed_at DATETIME NOT NULL,
  is_first TINYINT NULL UNIQUE COMMENT '1: the first of this server; null: any other',
  UNIQUE KEY by_name (sign_in_name),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
