ALTER TABLE place
  ADD COLUMN IF NOT EXISTS walk_rank TINYINT UNSIGNED NULL COMMENT '1 first, 3 last, when hours are short; NULL: nobody ranked it' CHECK (walk_rank BETWEEN 1 AND 3),
  ADD COLUMN IF NOT EXISTS spreads TINYINT NOT NULL DEFAULT 0 COMMENT 'what grows here gets away from here: water, an edge, machines'
