ALTER TABLE idempotency
  ADD COLUMN IF NOT EXISTS person_id VARCHAR(36) NOT NULL DEFAULT '' COMMENT 'whose key it is; empty where nobody was known yet' AFTER idempotency_key,
  ADD COLUMN IF NOT EXISTS secret BOOLEAN NOT NULL DEFAULT FALSE COMMENT 'the answer showed a secret and is not kept',
  DROP PRIMARY KEY,
  ADD PRIMARY KEY (idempotency_key, person_id)
