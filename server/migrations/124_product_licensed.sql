ALTER TABLE product ADD COLUMN IF NOT EXISTS licensed_only BOOLEAN NOT NULL DEFAULT FALSE COMMENT 'its label lets only licensed applicators use it'
