CREATE TABLE IF NOT EXISTS own_bloom_plant (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  name VARCHAR(120) NOT NULL,
  tell VARCHAR(500) NOT NULL DEFAULT '' COMMENT 'how to tell that it is there',
  block_id UUID NULL COMMENT 'in or beside which block it flowers',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  live TINYINT AS (IF(deleted_at IS NULL, 1, NULL)) PERSISTENT,
  UNIQUE KEY once (site_id, name, live),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (block_id) REFERENCES place (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
