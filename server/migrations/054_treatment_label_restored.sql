ALTER TABLE treatment
  ADD COLUMN IF NOT EXISTS label_state ENUM('kept', 'restored', 'doubtful') NOT NULL DEFAULT 'kept'
    COMMENT 'restored: a correction had put a later label in its place; doubtful: it may have, and nothing tells what stood there'
