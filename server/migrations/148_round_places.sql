ALTER TABLE round
  ADD COLUMN IF NOT EXISTS places LONGTEXT NULL COMMENT 'JSON: from which sample unit on it was another place, and whether at the edge; NULL: not kept' CHECK (JSON_VALID(places)),
  ADD COLUMN IF NOT EXISTS scale VARCHAR(10) NOT NULL DEFAULT 'classes' COMMENT 'by classes of the entry, or by degrees of damage' CHECK (scale IN ('classes', 'degrees')),
  ADD COLUMN IF NOT EXISTS enemies LONGTEXT NOT NULL DEFAULT '{}' COMMENT 'JSON: natural enemies seen on the walk, by kind' CHECK (JSON_VALID(enemies))
