ALTER TABLE round
  ADD COLUMN IF NOT EXISTS taken DOUBLE NULL COMMENT 'what was picked or crushed on the walk' CHECK (taken > 0),
  ADD COLUMN IF NOT EXISTS taken_unit VARCHAR(20) NULL CHECK (taken_unit IN ('pieces', 'kg', 'L', 'bags'))
