UPDATE product SET methods = CASE kind
  WHEN 'mating-disruption' THEN '["mating-disruption"]'
  WHEN 'growth-regulator' THEN '["growth-regulator"]'
  WHEN 'oil' THEN '["horticultural-oil"]'
  WHEN 'soap' THEN '["insecticidal-soap"]' END
WHERE kind IN ('mating-disruption', 'growth-regulator', 'oil', 'soap') AND methods = '[]'
