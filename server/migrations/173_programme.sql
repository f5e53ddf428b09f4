CREATE TABLE IF NOT EXISTS programme (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  watch_id UUID NOT NULL,
  name VARCHAR(120) NOT NULL,
  followed BOOLEAN NOT NULL DEFAULT FALSE COMMENT 'its steps come up when they are due; at most one of a watch',
  hourly DOUBLE NULL COMMENT 'money that an hour of work costs' CHECK (hourly >= 0),
  steps JSON NOT NULL COMMENT 'in their order: means, when, how often, and what a visit takes',
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP NOT NULL DEFAULT CURRENT_TIMESTAMP,
  deleted_at DATETIME NULL,
  KEY of_watch (site_id, watch_id),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (watch_id) REFERENCES watch (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
