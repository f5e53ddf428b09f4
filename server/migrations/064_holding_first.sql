INSERT INTO holding (id, name, changed_by)
SELECT UUID(), name, changed_by FROM site
WHERE NOT EXISTS (SELECT 1 FROM holding) ORDER BY deleted_at IS NOT NULL, created_at, id LIMIT 1
