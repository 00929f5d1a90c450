-- What a list says of a document, written with it, so that a list reads no documents. Null where the document can't be read.
ALTER TABLE brushes ADD COLUMN head jsonb;
ALTER TABLE alphas ADD COLUMN head jsonb;
ALTER TABLE sources ADD COLUMN head jsonb;
ALTER TABLE bodies ADD COLUMN head jsonb;
ALTER TABLE trials ADD COLUMN head jsonb;
INSERT INTO chores (name) SELECT 'fill-heads' WHERE EXISTS (SELECT 1 FROM sources) OR EXISTS (SELECT 1 FROM alphas) OR EXISTS (SELECT 1 FROM brushes) OR EXISTS (SELECT 1 FROM bodies) OR EXISTS (SELECT 1 FROM trials);
