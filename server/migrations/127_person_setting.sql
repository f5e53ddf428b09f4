CREATE TABLE IF NOT EXISTS person_setting (
  person_id UUID PRIMARY KEY,
  units ENUM('metric', 'us') NULL COMMENT 'null: as each site has them',
  dates ENUM('dmy', 'mdy') NULL COMMENT 'null: as the browser has them',
  changed_at DATETIME NOT NULL,
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB
