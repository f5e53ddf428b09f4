ALTER TABLE flag
  ADD COLUMN IF NOT EXISTS prior VARCHAR(10) NULL COMMENT 'how likely it is there still, before anybody looks: as the user says' CHECK (prior IN ('likely', 'even', 'unlikely'))
