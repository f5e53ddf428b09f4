ALTER TABLE site
  ADD COLUMN IF NOT EXISTS kind VARCHAR(10) NOT NULL DEFAULT 'farm' COMMENT 'what one looks after: garden, farm, land or others; sets what is shown and asked first' AFTER name
