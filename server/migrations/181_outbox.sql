CREATE TABLE IF NOT EXISTS outbox (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  person_id UUID NOT NULL,
  digest BOOLEAN NOT NULL,
  alerts JSON NOT NULL COMMENT 'ids of what it tells, in their order',
  not_before DATETIME NOT NULL COMMENT 'by the clock of the server, or of the demonstration',
  attempts INT UNSIGNED NOT NULL DEFAULT 0,
  failure VARCHAR(300) NULL,
  sent_at DATETIME NULL,
  created_at TIMESTAMP(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
  KEY due (sent_at, not_before),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
