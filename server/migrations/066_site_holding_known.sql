UPDATE site SET holding_id = (SELECT id FROM holding ORDER BY created_at, id LIMIT 1) WHERE holding_id IS NULL
