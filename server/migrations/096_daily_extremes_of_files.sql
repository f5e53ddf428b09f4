DELETE FROM daily_extremes WHERE import_id IS NULL
