ALTER TABLE issued_forecast
  ADD COLUMN IF NOT EXISTS grade ENUM('dates', 'months', 'none', 'calendar') NOT NULL DEFAULT 'dates' COMMENT 'how certain it was stated; only dates have windows and events',
  ADD COLUMN IF NOT EXISTS usual JSON NULL COMMENT 'months and bloom that a forecast without dates names'
