ALTER TABLE reading
  ADD COLUMN IF NOT EXISTS wetness DOUBLE NULL COMMENT 'share of the hour that leaves were wet, 0 to 1',
  ADD COLUMN IF NOT EXISTS soil DOUBLE NULL COMMENT '°C at 10 cm'
