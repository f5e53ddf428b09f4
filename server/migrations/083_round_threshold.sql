ALTER TABLE round
  ADD COLUMN IF NOT EXISTS threshold_from ENUM('own', 'library', 'every-one', 'none') NULL COMMENT 'whose threshold held on its day; null: recorded before it was kept' AFTER units,
  ADD COLUMN IF NOT EXISTS threshold_then DOUBLE NULL COMMENT 'per 100 items' AFTER threshold_from
