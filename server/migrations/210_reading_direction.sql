ALTER TABLE reading
  ADD COLUMN IF NOT EXISTS direction DOUBLE NULL COMMENT 'degrees clockwise from north, from which the wind blew'
