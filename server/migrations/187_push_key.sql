CREATE TABLE IF NOT EXISTS push_key (
  id TINYINT UNSIGNED PRIMARY KEY DEFAULT 1 CHECK (id = 1),
  public_key VARCHAR(120) NOT NULL COMMENT 'by which browsers know that a push comes from this server',
  private_key VARCHAR(80) NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP
) ENGINE=InnoDB CHARSET=utf8mb4
