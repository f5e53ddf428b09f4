INSERT IGNORE INTO typed_day (station_id, day, site_id, min_temperature, max_temperature, rain, changed_by)
SELECT station_id, day, site_id, min_temperature, max_temperature, rain, changed_by FROM daily_extremes WHERE import_id IS NULL
