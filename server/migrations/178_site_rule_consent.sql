ALTER TABLE site_rule
  MODIFY kind ENUM('closed-days', 'closed-hours', 'wind', 'notice', 'consent', 'kept-clear') NOT NULL
