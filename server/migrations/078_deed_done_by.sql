UPDATE deed SET done_by = changed_by WHERE done_by IS NULL AND status <> 'planned'
