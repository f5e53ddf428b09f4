CREATE TABLE IF NOT EXISTS audit (
  id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
  site_id UUID NOT NULL,
  person_id UUID NOT NULL,
  entity VARCHAR(40) NOT NULL,
  entity_id UUID NOT NULL,
  action ENUM('create', 'change', 'remove', 'restore') NOT NULL,
  before_row JSON NULL,
  after_row JSON NULL,
  at TIMESTAMP(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
  KEY by_entity (entity_id, id),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
