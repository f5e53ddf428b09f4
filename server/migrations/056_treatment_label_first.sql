UPDATE treatment t
JOIN (
  SELECT entity_id, MIN(id) AS id FROM audit
  WHERE entity = 'treatment' AND JSON_VALUE(after_row, '$.product_then') IS NOT NULL GROUP BY entity_id
) first ON first.entity_id = t.id
JOIN audit a ON a.id = first.id
SET t.product_then = JSON_VALUE(a.after_row, '$.product_then'), t.label_state = 'restored'
WHERE t.status = 'done' AND JSON_VALUE(a.after_row, '$.product_then') <> t.product_then
