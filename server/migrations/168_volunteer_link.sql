ALTER TABLE link
  MODIFY COLUMN role ENUM('owner', 'lead', 'scout', 'applicator', 'viewer', 'volunteer') NULL,
  ADD COLUMN IF NOT EXISTS help_on DATE NULL,
  ADD COLUMN IF NOT EXISTS help_in LONGTEXT NULL CHECK (JSON_VALID(help_in))
