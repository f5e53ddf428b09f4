ALTER TABLE sign_in MODIFY COLUMN how ENUM('password', 'link', 'demo', 'passkey') NOT NULL
