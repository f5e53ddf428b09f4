ALTER TABLE product
  ADD COLUMN IF NOT EXISTS assumed JSON NOT NULL DEFAULT '[]' COMMENT 'what nobody said of it: its effect or its residue is a guess by what it is' AFTER residual_days
