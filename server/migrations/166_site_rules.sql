ALTER TABLE site
  ADD COLUMN IF NOT EXISTS rules_country VARCHAR(80) NOT NULL DEFAULT '' COMMENT 'whose rules hold here, as people write it',
  ADD COLUMN IF NOT EXISTS rules_region VARCHAR(80) NOT NULL DEFAULT '',
  ADD COLUMN IF NOT EXISTS rules_checked_on DATE NULL COMMENT 'the list of what must be reported was held against those rules; NULL: nobody did'
