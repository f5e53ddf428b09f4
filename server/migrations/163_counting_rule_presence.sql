ALTER TABLE counting_rule
  MODIFY COLUMN scale VARCHAR(10) NOT NULL DEFAULT 'classes' CHECK (scale IN ('classes', 'degrees', 'presence'))
