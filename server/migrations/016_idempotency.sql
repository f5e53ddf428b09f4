CREATE TABLE IF NOT EXISTS idempotency (
  idempotency_key VARCHAR(100) PRIMARY KEY,
  request_hash CHAR(64) NOT NULL,
  response JSON NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  KEY by_age (created_at)
) ENGINE=InnoDB CHARSET=utf8mb4
