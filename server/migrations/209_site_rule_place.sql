ALTER TABLE site_rule
  ADD COLUMN IF NOT EXISTS place_id UUID NULL COMMENT 'that it binds; NULL: the whole site',
  ADD CONSTRAINT FOREIGN KEY IF NOT EXISTS rule_of_place (place_id) REFERENCES place (id)
