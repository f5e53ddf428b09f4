ALTER TABLE trial
  ADD COLUMN IF NOT EXISTS product_id UUID NULL COMMENT 'what is tried, where it stands on the shelf',
  ADD COLUMN IF NOT EXISTS method_id VARCHAR(80) NULL COMMENT 'or is done by hand',
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS product_of_trial (product_id) REFERENCES product (id)
