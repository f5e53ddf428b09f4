ALTER TABLE forecast_issue
  ADD COLUMN IF NOT EXISTS daily_means JSON NULL COMMENT 'of the hours of its members, once these are no longer kept'
