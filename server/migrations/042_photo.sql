CREATE TABLE IF NOT EXISTS photo (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  organism_id VARCHAR(80) NOT NULL,
  block_id UUID NULL,
  latitude DOUBLE NULL CHECK (latitude BETWEEN -90 AND 90),
  longitude DOUBLE NULL CHECK (longitude BETWEEN -180 AND 180),
  taken_on DATE NOT NULL,
  reference TINYINT NOT NULL DEFAULT 0 COMMENT '1: somebody confirmed what it shows; it belongs to the reference set of the site',
  shows VARCHAR(80) NOT NULL COMMENT 'the organism, or the look-alike that it turned out to be',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  KEY of_organism (site_id, organism_id),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (block_id) REFERENCES block (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
