CREATE TABLE IF NOT EXISTS find_link (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  name VARCHAR(80) NOT NULL COMMENT 'where it hangs, or whom it went to',
  place_id UUID NULL COMMENT 'near which finds of it are',
  code VARCHAR(20) NOT NULL COMMENT 'stands on a board for all to see: no secret',
  ends_on DATE NULL COMMENT 'last day on which something can be sent by it',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  KEY by_code (code),
  KEY of_site (site_id),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (place_id) REFERENCES place (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
