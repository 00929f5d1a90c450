-- Colours that were chosen by hand: documents like the others.
CREATE TABLE palettes (LIKE sources INCLUDING ALL);
