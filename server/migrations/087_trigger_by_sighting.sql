ALTER TABLE bloom_trigger
  MODIFY COLUMN plant_id VARCHAR(80) NULL COMMENT 'NULL: the event is one of the organism of its watch',
  MODIFY COLUMN event VARCHAR(80) NOT NULL
