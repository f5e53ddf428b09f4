CREATE TABLE IF NOT EXISTS public_find_photo (
  public_find_id UUID PRIMARY KEY,
  jpeg MEDIUMBLOB NOT NULL COMMENT 'drawn anew where it was chosen, without what the camera wrote into it',
  FOREIGN KEY (public_find_id) REFERENCES public_find (id)
) ENGINE=InnoDB CHARSET=utf8mb4
