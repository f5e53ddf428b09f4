UPDATE audit SET entity = IF(entity = 'block', 'place', 'deed') WHERE entity IN ('block', 'treatment')
