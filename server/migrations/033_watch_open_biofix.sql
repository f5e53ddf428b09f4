ALTER TABLE watch
  MODIFY biofix DATE NULL COMMENT 'as it was entered; without one it is expected, or comes by the calendar',
  ADD COLUMN IF NOT EXISTS source_known VARCHAR(8) NOT NULL DEFAULT 'unknown' COMMENT 'whether a source of infection is known' CHECK (source_known IN ('yes', 'no', 'unknown'))
