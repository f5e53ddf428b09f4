UPDATE own_organism SET row_version = row_version WHERE FALSE
