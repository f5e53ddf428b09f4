ALTER TABLE own_organism
  ADD COLUMN IF NOT EXISTS holding_id UUID NULL COMMENT 'of every site of the holding, where it is not of one site' AFTER site_id,
  MODIFY site_id UUID NULL,
  ADD COLUMN IF NOT EXISTS owner_id UUID AS (COALESCE(site_id, holding_id)) PERSISTENT,
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS holding_of_own_organism (holding_id) REFERENCES holding (id),
  ADD INDEX IF NOT EXISTS of_site (site_id),
  DROP INDEX IF EXISTS once,
  ADD UNIQUE KEY once (owner_id, organism_id, live),
  DROP CONSTRAINT IF EXISTS one_owner,
  ADD CONSTRAINT one_owner CHECK ((site_id IS NULL) <> (holding_id IS NULL))
