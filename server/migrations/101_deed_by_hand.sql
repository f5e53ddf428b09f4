ALTER TABLE deed
  ADD COLUMN IF NOT EXISTS method_then JSON NULL COMMENT 'the method as it was named, and what it was taken to do, when it was done' AFTER product_then
