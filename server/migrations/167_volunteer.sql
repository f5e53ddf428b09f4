ALTER TABLE site_person
  MODIFY COLUMN role ENUM('owner', 'lead', 'scout', 'applicator', 'viewer', 'volunteer') NOT NULL,
  ADD COLUMN IF NOT EXISTS help_on DATE NULL COMMENT 'the one day on which a volunteer works here',
  ADD COLUMN IF NOT EXISTS help_in LONGTEXT NULL COMMENT 'JSON: the blocks in which they do' CHECK (JSON_VALID(help_in))
