CREATE TABLE IF NOT EXISTS push_device (
  endpoint_hash BINARY(32) PRIMARY KEY,
  person_id UUID NOT NULL,
  endpoint VARCHAR(1000) NOT NULL COMMENT 'where the maker of its browser takes pushes for it',
  p256dh VARCHAR(120) NOT NULL,
  auth VARCHAR(40) NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  KEY of_person (person_id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
