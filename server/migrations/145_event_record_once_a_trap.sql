ALTER TABLE event_record
  DROP INDEX IF EXISTS once,
  ADD UNIQUE KEY once (block_id, organism_id, event_id, kind, seen_on, trap_key, live)
