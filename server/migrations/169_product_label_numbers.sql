ALTER TABLE product
  ADD COLUMN IF NOT EXISTS registration VARCHAR(60) NOT NULL DEFAULT '' COMMENT 'number under which it is registered',
  ADD COLUMN IF NOT EXISTS least_interval_days INT NULL COMMENT 'days that the label asks between two treatments of the same ground' CHECK (least_interval_days BETWEEN 1 AND 365),
  ADD COLUMN IF NOT EXISTS most_per_season INT NULL COMMENT 'treatments of the same ground that the label allows in a season' CHECK (most_per_season BETWEEN 1 AND 100),
  ADD COLUMN IF NOT EXISTS rain_fast_hours DOUBLE NULL COMMENT 'hours without rain that it needs, by the label' CHECK (rain_fast_hours BETWEEN 0 AND 96),
  ADD COLUMN IF NOT EXISTS max_wind_ms DOUBLE NULL COMMENT 'highest wind that the label allows, m/s' CHECK (max_wind_ms BETWEEN 0 AND 20),
  ADD COLUMN IF NOT EXISTS min_temp_c DOUBLE NULL COMMENT 'lowest air temperature that the label allows' CHECK (min_temp_c BETWEEN -20 AND 50),
  ADD COLUMN IF NOT EXISTS max_temp_c DOUBLE NULL COMMENT 'highest air temperature that the label allows' CHECK (max_temp_c BETWEEN -20 AND 50);
