ALTER TABLE wet_event MODIFY kind ENUM('overhead-watering', 'condensation', 'hail') NOT NULL
