CREATE TABLE IF NOT EXISTS own_figure (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  organism_id VARCHAR(80) NOT NULL,
  block_id UUID NULL COMMENT 'the block for which alone it holds; the whole site without one',
  path VARCHAR(120) NOT NULL COMMENT 'the number of the library that it stands for',
  value DOUBLE NOT NULL,
  reason VARCHAR(500) NOT NULL CHECK (reason <> ''),
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  live TINYINT AS (IF(deleted_at IS NULL, 1, NULL)) PERSISTENT,
  scope CHAR(36) AS (IFNULL(CAST(block_id AS CHAR), 'site')) PERSISTENT,
  UNIQUE KEY one_value (site_id, organism_id, path, scope, live),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (block_id) REFERENCES block (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
