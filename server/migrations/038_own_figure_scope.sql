ALTER TABLE own_figure
  MODIFY COLUMN scope VARCHAR(60) AS (CONCAT(IFNULL(CAST(block_id AS CHAR), 'site'), IF(evidence IS NULL, '', ' fitted'))) PERSISTENT
