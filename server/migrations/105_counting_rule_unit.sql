ALTER TABLE counting_rule
  ADD COLUMN IF NOT EXISTS unit_one VARCHAR(60) NULL COMMENT 'sample unit of the site’s own, one of it; the library’s where there is none' AFTER frame,
  ADD COLUMN IF NOT EXISTS unit_many VARCHAR(60) NULL AFTER unit_one,
  ADD COLUMN IF NOT EXISTS unit_items INT UNSIGNED NULL COMMENT 'items that are looked at on each' AFTER unit_many,
  ADD COLUMN IF NOT EXISTS unit_suggested INT UNSIGNED NULL COMMENT 'units in a round' AFTER unit_items
