INSERT IGNORE INTO trap_lure (id, site_id, trap_id, lure, lure_load, hung_on, changed_by)
  SELECT UUID(), site_id, id, lure, lure_load, lure_on, changed_by FROM trap WHERE lure <> '' AND lure_on IS NOT NULL
