ALTER TABLE counting_rule
  ADD COLUMN IF NOT EXISTS scale VARCHAR(10) NOT NULL DEFAULT 'classes' CHECK (scale IN ('classes', 'degrees')),
  ADD COLUMN IF NOT EXISTS plan LONGTEXT NULL COMMENT 'JSON: how a count ends here; NULL: as usual' CHECK (JSON_VALID(plan))
