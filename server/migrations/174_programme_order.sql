ALTER TABLE programme MODIFY created_at TIMESTAMP(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6) COMMENT 'they stand in the order in which they were made'
