ALTER TABLE identity_check
  MODIFY created_at TIMESTAMP(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6) COMMENT 'of several on a day the last one stands'
