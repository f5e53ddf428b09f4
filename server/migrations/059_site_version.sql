CREATE TABLE IF NOT EXISTS site_version (
  site_id UUID NOT NULL COMMENT 'of all zeros: the list of sites',
  aspect VARCHAR(20) NOT NULL,
  version BIGINT UNSIGNED NOT NULL DEFAULT 1 COMMENT 'raised in every transaction that changes the aspect, last of all',
  PRIMARY KEY (site_id, aspect)
) ENGINE=InnoDB CHARSET=utf8mb4
