CREATE TABLE IF NOT EXISTS counting_rule (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  organism_id VARCHAR(80) NOT NULL,
  weights JSON NOT NULL COMMENT 'of the classes that are counted; by them all rounds are reckoned, past ones too',
  frame VARCHAR(500) NOT NULL DEFAULT '' COMMENT 'what is counted, where the site goes by another rule than the library',
  reason VARCHAR(500) NOT NULL,
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  live TINYINT AS (IF(deleted_at IS NULL, 1, NULL)) PERSISTENT,
  UNIQUE KEY once (site_id, organism_id, live),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
