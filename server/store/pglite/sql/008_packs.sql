-- Brushes in groups and in an order: documents like the others. Nothing was ever kept in the table that was here.
DROP TABLE packs;
CREATE TABLE packs (LIKE sources INCLUDING ALL);
