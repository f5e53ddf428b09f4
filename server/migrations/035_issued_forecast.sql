CREATE TABLE IF NOT EXISTS issued_forecast (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  watch_id UUID NOT NULL,
  issued_at DATETIME NOT NULL COMMENT 'UTC, by the clock of the site',
  today DATE NOT NULL,
  weather_key VARCHAR(400) NOT NULL COMMENT 'what of the weather it rests on, with versions',
  biofix DATE NULL,
  model JSON NOT NULL,
  model_name VARCHAR(120) NOT NULL,
  model_hash CHAR(64) NOT NULL,
  windows JSON NOT NULL COMMENT '10th, 50th and 90th percentile of opening and closing, by generation',
  dates_hash CHAR(64) NOT NULL COMMENT 'of windows; a forecast that says the same is not stored again the same day',
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  UNIQUE KEY once (watch_id, today, dates_hash),
  KEY by_watch (watch_id, issued_at),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (watch_id) REFERENCES watch (id)
) ENGINE=InnoDB CHARSET=utf8mb4
