-- References to documents are named by their collection, and say whether the document that names them can do without.
ALTER TABLE refs ADD COLUMN needed boolean NOT NULL DEFAULT true;
UPDATE refs SET kind = 'alphas' WHERE kind = 'alpha';
-- Alphas name their sources and the alphas that steps combine with; earlier versions didn't write that down.
INSERT INTO chores (name) SELECT 'fill-refs' WHERE EXISTS (SELECT 1 FROM alphas) ON CONFLICT DO NOTHING;
