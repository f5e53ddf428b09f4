CREATE TABLE IF NOT EXISTS site_person (
  site_id UUID NOT NULL,
  person_id UUID NOT NULL,
  role ENUM('lead', 'scout', 'applicator', 'viewer') NOT NULL,
  licensed BOOLEAN NOT NULL DEFAULT FALSE,
  PRIMARY KEY (site_id, person_id),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
