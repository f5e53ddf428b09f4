CREATE TABLE IF NOT EXISTS aerial_image_file (
  image_id UUID PRIMARY KEY,
  jpeg MEDIUMBLOB NOT NULL COMMENT 'made small in the page, without what the camera wrote into it',
  FOREIGN KEY (image_id) REFERENCES aerial_image (id)
) ENGINE=InnoDB CHARSET=utf8mb4
