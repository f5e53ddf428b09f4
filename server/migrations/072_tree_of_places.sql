ALTER TABLE place
  ADD COLUMN IF NOT EXISTS parent_id UUID NULL COMMENT 'null: a block, right under its site' AFTER site_id,
  ADD COLUMN IF NOT EXISTS level ENUM('block', 'patch', 'row', 'bed', 'plants', 'pots') NOT NULL DEFAULT 'block' AFTER parent_id,
  ADD COLUMN IF NOT EXISTS area_m2 DOUBLE NULL CHECK (area_m2 > 0) AFTER kind,
  ADD COLUMN IF NOT EXISTS plants INT UNSIGNED NULL COMMENT 'how many plants or pots stand there' CHECK (plants > 0) AFTER area_m2,
  MODIFY kind ENUM('orchard', 'vineyard', 'field', 'bed', 'tunnel', 'pots', 'natural-area') NULL COMMENT 'of a block',
  ADD COLUMN IF NOT EXISTS under_id UUID AS (COALESCE(parent_id, site_id)) PERSISTENT,
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS parent_of_place (parent_id) REFERENCES place (id),
  ADD INDEX IF NOT EXISTS of_site (site_id),
  DROP INDEX IF EXISTS name_in_site,
  ADD UNIQUE KEY IF NOT EXISTS name_in_place (under_id, name, live),
  DROP CONSTRAINT IF EXISTS parent_of_parts,
  ADD CONSTRAINT parent_of_parts CHECK ((level = 'block') = (parent_id IS NULL) AND (level = 'block') = (kind IS NOT NULL))
