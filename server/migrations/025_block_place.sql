ALTER TABLE block
  ADD COLUMN IF NOT EXISTS latitude DOUBLE NULL CHECK (latitude BETWEEN -90 AND 90),
  ADD COLUMN IF NOT EXISTS longitude DOUBLE NULL CHECK (longitude BETWEEN -180 AND 180),
  ADD COLUMN IF NOT EXISTS offset_min DOUBLE NOT NULL DEFAULT 0 COMMENT '°C on the day''s minimum against its station' CHECK (offset_min BETWEEN -25 AND 25),
  ADD COLUMN IF NOT EXISTS offset_max DOUBLE NOT NULL DEFAULT 0 COMMENT '°C on the day''s maximum against its station' CHECK (offset_max BETWEEN -25 AND 25),
  ADD COLUMN IF NOT EXISTS soil_texture ENUM('sand', 'loamy-sand', 'sandy-loam', 'loam', 'silt-loam', 'clay-loam', 'clay') NULL,
  ADD COLUMN IF NOT EXISTS soil_cover ENUM('bare', 'covered') NOT NULL DEFAULT 'bare'
