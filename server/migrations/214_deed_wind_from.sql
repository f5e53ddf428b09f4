ALTER TABLE deed
  ADD COLUMN IF NOT EXISTS wind_from DOUBLE NULL COMMENT 'degrees clockwise from north' CHECK (wind_from BETWEEN 0 AND 360)
