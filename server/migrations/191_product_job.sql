ALTER TABLE product
  ADD COLUMN IF NOT EXISTS mixing VARCHAR(300) NOT NULL DEFAULT '' COMMENT 'what the label asks of water, adjuvant, dye and order',
  ADD COLUMN IF NOT EXISTS active_grams_per DOUBLE NULL COMMENT 'g of the active in 1 L or 1 kg' CHECK (active_grams_per > 0),
  ADD COLUMN IF NOT EXISTS most_active_kg_ha DOUBLE NULL COMMENT 'most of the active on a hectare and season' CHECK (most_active_kg_ha > 0),
  ADD COLUMN IF NOT EXISTS needs_permit BOOLEAN NOT NULL DEFAULT FALSE COMMENT 'the law lets it be used only with a permit',
  ADD COLUMN IF NOT EXISTS read_on DATE NULL COMMENT 'when the numbers of its label were read'
