UPDATE deed d JOIN watch w ON w.id = d.watch_id
SET d.place_id = COALESCE(d.place_id, w.block_id), d.organism_id = COALESCE(d.organism_id, w.organism_id)
WHERE d.place_id IS NULL OR d.organism_id IS NULL
