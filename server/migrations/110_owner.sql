ALTER TABLE site_person MODIFY COLUMN role ENUM('owner', 'lead', 'scout', 'applicator', 'viewer') NOT NULL
