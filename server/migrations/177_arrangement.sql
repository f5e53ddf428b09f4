CREATE TABLE IF NOT EXISTS arrangement (
  id UUID PRIMARY KEY,
  site_id UUID NOT NULL,
  task VARCHAR(100) NOT NULL COMMENT 'kind of the task, and the id of what it is done for',
  person_id UUID NULL COMMENT 'who sees to it',
  machine VARCHAR(80) NOT NULL,
  minutes DOUBLE NULL CHECK (minutes >= 0),
  notice_on DATE NULL COMMENT 'neighbours were told',
  consent_on DATE NULL COMMENT 'those whose ground it is agreed',
  consent_by VARCHAR(120) NOT NULL,
  row_version INT UNSIGNED NOT NULL DEFAULT 1,
  changed_by UUID NOT NULL,
  created_at TIMESTAMP(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
  deleted_at DATETIME NULL,
  UNIQUE KEY once (site_id, task),
  FOREIGN KEY (site_id) REFERENCES site (id),
  FOREIGN KEY (person_id) REFERENCES person (id),
  FOREIGN KEY (changed_by) REFERENCES person (id)
) ENGINE=InnoDB CHARSET=utf8mb4
