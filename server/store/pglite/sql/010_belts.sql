-- Belts beside the first, and favourites: documents like the others.
CREATE TABLE belts (LIKE sources INCLUDING ALL);
