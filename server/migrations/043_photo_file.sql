CREATE TABLE IF NOT EXISTS photo_file (
  photo_id UUID PRIMARY KEY,
  jpeg MEDIUMBLOB NOT NULL COMMENT 'made small in the page, without what the camera wrote into it',
  FOREIGN KEY (photo_id) REFERENCES photo (id)
) ENGINE=InnoDB CHARSET=utf8mb4
