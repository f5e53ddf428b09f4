UPDATE place SET area_m2 = ROUND(area_ha * 10000, 4) WHERE area_m2 IS NULL AND area_ha IS NOT NULL
