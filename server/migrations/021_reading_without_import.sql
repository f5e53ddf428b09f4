ALTER TABLE reading MODIFY import_id UUID NULL COMMENT 'null: pushed by a device'
