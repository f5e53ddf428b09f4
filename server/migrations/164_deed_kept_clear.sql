ALTER TABLE deed
  ADD COLUMN IF NOT EXISTS kept_clear DOUBLE NULL COMMENT 'm kept from water, hives, neighbours and what is sensitive; NULL: nobody said' CHECK (kept_clear > 0)
