ALTER TABLE round
  ADD COLUMN IF NOT EXISTS unit_one VARCHAR(60) NULL COMMENT 'sample unit by which it was counted, where that was the site’s own' AFTER units,
  ADD COLUMN IF NOT EXISTS unit_many VARCHAR(60) NULL AFTER unit_one,
  ADD COLUMN IF NOT EXISTS unit_items INT UNSIGNED NULL AFTER unit_many
