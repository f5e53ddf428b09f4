CREATE TABLE IF NOT EXISTS alert (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  alert_key VARCHAR(160) NOT NULL COMMENT 'the same for the same matter: it is told once',
  kind VARCHAR(20) NOT NULL,
  about DATE NOT NULL COMMENT 'civil day on which it matters',
  urgent BOOLEAN NOT NULL,
  says JSON NOT NULL COMMENT 'what its words are made of',
  watch_id UUID NULL,
  made_at DATETIME NOT NULL,
  UNIQUE KEY once (site_id, alert_key),
  KEY of_site (site_id, made_at),
  FOREIGN KEY (site_id) REFERENCES site (id)
) ENGINE=InnoDB CHARSET=utf8mb4
