ALTER TABLE reading_fix
  MODIFY COLUMN flag ENUM('range', 'step', 'flat-line', 'spike', 'gap', 'drift', 'unseen') NOT NULL
