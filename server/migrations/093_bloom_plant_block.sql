ALTER TABLE bloom_plant
  ADD COLUMN IF NOT EXISTS block_id UUID NULL COMMENT 'in or beside which block it flowers' AFTER place,
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS beside_block (block_id) REFERENCES place (id)
