ALTER TABLE sign_in
  MODIFY COLUMN how ENUM('password', 'link', 'demo', 'passkey', 'code') NOT NULL,
  ADD COLUMN IF NOT EXISTS phone_id UUID NULL COMMENT 'the shared phone on which it was opened by code',
  ADD FOREIGN KEY IF NOT EXISTS of_phone (phone_id) REFERENCES phone (id)
