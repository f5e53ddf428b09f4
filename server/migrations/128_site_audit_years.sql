ALTER TABLE site ADD COLUMN IF NOT EXISTS audit_years TINYINT UNSIGNED NULL COMMENT 'who changed what is kept so long; null: always'
