ALTER TABLE own_clock
  ADD COLUMN IF NOT EXISTS typed BOOLEAN NOT NULL DEFAULT FALSE COMMENT 'somebody typed it; its seasons are 0 then' AFTER seasons,
  ADD COLUMN IF NOT EXISTS upper_threshold DOUBLE NULL COMMENT '°C' AFTER lower_threshold,
  ADD COLUMN IF NOT EXISTS starts_on CHAR(5) NULL COMMENT 'month and day from which heat counts; from the first day of the season where there is none' AFTER typed,
  ADD COLUMN IF NOT EXISTS source VARCHAR(200) NOT NULL DEFAULT '' COMMENT 'where the typed figure is from' AFTER starts_on
