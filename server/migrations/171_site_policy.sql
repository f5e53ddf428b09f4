ALTER TABLE site
  ADD COLUMN IF NOT EXISTS chemicals ENUM('any', 'programme', 'last', 'never', 'organic') NOT NULL DEFAULT 'any' COMMENT 'how chemicals are used here',
  ADD COLUMN IF NOT EXISTS certificate VARCHAR(120) NOT NULL DEFAULT '' COMMENT 'of organic growing',
  ADD COLUMN IF NOT EXISTS certified_on DATE NULL
