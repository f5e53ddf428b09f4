ALTER TABLE own_figure
  ADD COLUMN IF NOT EXISTS evidence JSON NULL COMMENT 'of a number fitted to records: prior, data and posterior; NULL where a person set it'
