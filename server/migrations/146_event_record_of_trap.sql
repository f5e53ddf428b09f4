ALTER TABLE event_record
  ADD FOREIGN KEY IF NOT EXISTS of_trap (trap_id) REFERENCES trap (id)
