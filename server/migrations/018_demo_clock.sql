CREATE TABLE IF NOT EXISTS demo_clock (
  only_row TINYINT PRIMARY KEY DEFAULT 1 CHECK (only_row = 1),
  now_at DATETIME NOT NULL COMMENT 'UTC; while this row exists it is the time of the whole server'
) ENGINE=InnoDB CHARSET=utf8mb4
