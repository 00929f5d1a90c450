-- Bodies of one's own that brushes are proved on, and sets of test strokes: documents like the others, names apart and all.
CREATE TABLE bodies (LIKE sources INCLUDING ALL);
CREATE TABLE trials (LIKE sources INCLUDING ALL);
