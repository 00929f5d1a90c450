-- Light meshes that brushes set down: documents like the others.
CREATE TABLE parts (LIKE sources INCLUDING ALL);
