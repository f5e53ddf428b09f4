UPDATE site_person SET role = 'owner' WHERE role = 'lead'
