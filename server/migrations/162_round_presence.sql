ALTER TABLE round
  MODIFY COLUMN scale VARCHAR(10) NOT NULL DEFAULT 'classes' COMMENT 'by classes of the entry, by degrees of damage, or by whether a sample unit has any' CHECK (scale IN ('classes', 'degrees', 'presence'))
