ALTER TABLE watch
  ADD COLUMN IF NOT EXISTS threshold_scale VARCHAR(10) NOT NULL DEFAULT 'classes' COMMENT 'by what was counted when it was set' CHECK (threshold_scale IN ('classes', 'degrees')),
  ADD COLUMN IF NOT EXISTS threshold_steps LONGTEXT NULL COMMENT 'JSON: from which stage of the crop on another one holds' CHECK (JSON_VALID(threshold_steps)),
  ADD COLUMN IF NOT EXISTS threshold_economics LONGTEXT NULL COMMENT 'JSON: what it was reckoned from' CHECK (JSON_VALID(threshold_economics))
