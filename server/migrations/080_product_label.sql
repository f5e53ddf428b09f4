ALTER TABLE product
  ADD COLUMN IF NOT EXISTS methods JSON NOT NULL DEFAULT '[]' COMMENT 'methods of the library that it is for; none: nobody has said' AFTER kind,
  ADD COLUMN IF NOT EXISTS strain VARCHAR(80) NULL COMMENT 'strain, species, lure or group of the method' AFTER methods,
  ADD COLUMN IF NOT EXISTS active VARCHAR(200) NOT NULL DEFAULT '' COMMENT 'active substance or organism, by the label' AFTER strain,
  ADD COLUMN IF NOT EXISTS formulation VARCHAR(40) NULL AFTER active,
  ADD COLUMN IF NOT EXISTS ways JSON NOT NULL DEFAULT '[]' COMMENT 'ways of application that the label names' AFTER formulation,
  ADD COLUMN IF NOT EXISTS targets JSON NOT NULL DEFAULT '[]' COMMENT 'organisms that the label names; none: not entered' AFTER ways,
  ADD COLUMN IF NOT EXISTS crops JSON NOT NULL DEFAULT '[]' AFTER targets,
  ADD COLUMN IF NOT EXISTS places JSON NOT NULL DEFAULT '[]' COMMENT 'kinds of place that the label names' AFTER crops,
  MODIFY kind VARCHAR(40) NULL COMMENT 'what was said of it before methods were named'
