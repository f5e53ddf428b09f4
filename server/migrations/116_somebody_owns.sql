UPDATE site_person sp
LEFT JOIN (SELECT DISTINCT site_id FROM site_person WHERE role = 'owner' AND left_at IS NULL) owned ON owned.site_id = sp.site_id
SET sp.role = 'owner'
WHERE owned.site_id IS NULL AND sp.left_at IS NULL AND sp.role <> 'viewer'
