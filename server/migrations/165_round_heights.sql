ALTER TABLE round
  ADD COLUMN IF NOT EXISTS heights LONGTEXT NULL COMMENT 'JSON: where on the plant each sample unit was; NULL: nobody said' CHECK (JSON_VALID(heights))
