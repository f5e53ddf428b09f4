CREATE TABLE IF NOT EXISTS lot (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  product_id UUID NOT NULL,
  number VARCHAR(60) NOT NULL,
  amount DOUBLE NOT NULL CHECK (amount > 0),
  unit ENUM('L', 'kg', 'gal', 'lb', 'pieces') NOT NULL,
  came_on DATE NOT NULL,
  expires_on DATE NULL COMMENT 'last day on which it can be used',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  live TINYINT AS (IF(deleted_at IS NULL, 1, NULL)) PERSISTENT,
  UNIQUE KEY once (site_id, product_id, number, live),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (product_id) REFERENCES product (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
