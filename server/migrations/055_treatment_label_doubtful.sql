UPDATE treatment t
SET t.label_state = 'doubtful'
WHERE t.status = 'done' AND t.row_version > 2
  AND NOT EXISTS (SELECT 1 FROM audit a WHERE a.entity = 'treatment' AND a.entity_id = t.id AND JSON_VALUE(a.after_row, '$.product_then') IS NOT NULL)
