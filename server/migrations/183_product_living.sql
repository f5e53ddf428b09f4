ALTER TABLE product
  ADD COLUMN IF NOT EXISTS order_days INT NULL COMMENT 'days from order to delivery, of what is living' CHECK (order_days BETWEEN 0 AND 120),
  ADD COLUMN IF NOT EXISTS keeps_days INT NULL COMMENT 'days for which it keeps once it is there; 0: to be put out at once' CHECK (keeps_days BETWEEN 0 AND 365)
