ALTER TABLE deed MODIFY created_at TIMESTAMP(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6) COMMENT 'those of a day stand in the order in which they were planned'
