ALTER TABLE watch
  MODIFY source_known VARCHAR(8) NOT NULL DEFAULT 'unknown' COMMENT 'whether a source of infection is known' CHECK (source_known IN ('yes', 'heavy', 'no', 'unknown'))
