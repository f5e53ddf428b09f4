ALTER TABLE issued_forecast
  ADD COLUMN IF NOT EXISTS bloom_shift JSON NULL COMMENT 'shift by bloom that it rested on, in °C·d of the blooms; NULL where none was'
