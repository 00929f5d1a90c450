-- What each revision of each document names, so that nothing has to be looked for in the documents' text.
CREATE TABLE refs (
  collection text NOT NULL,
  id uuid NOT NULL,
  revision integer NOT NULL,
  -- 'blob' or 'alpha'.
  kind text NOT NULL,
  target text NOT NULL,
  PRIMARY KEY (collection, id, revision, kind, target)
);
CREATE INDEX refs_target ON refs (kind, target);
-- Documents that were there before are read once, by the program.
CREATE TABLE chores (name text PRIMARY KEY);
INSERT INTO chores (name) SELECT 'fill-refs' WHERE EXISTS (SELECT 1 FROM sources) OR EXISTS (SELECT 1 FROM alphas) OR EXISTS (SELECT 1 FROM brushes) OR EXISTS (SELECT 1 FROM bodies);

-- Bytes lie in files beside the database; here are their names, and when they were last sent.
ALTER TABLE blobs ADD COLUMN sent_at timestamptz NOT NULL DEFAULT now();
UPDATE blobs SET sent_at = created_at;
INSERT INTO chores (name) SELECT 'blobs-to-files' WHERE EXISTS (SELECT 1 FROM blob_parts);

-- The revision that the picture shows; 0 where it is to be drawn.
ALTER TABLE brushes ADD COLUMN pictured integer NOT NULL DEFAULT 0;
ALTER TABLE alphas ADD COLUMN pictured integer NOT NULL DEFAULT 0;
ALTER TABLE sources ADD COLUMN pictured integer NOT NULL DEFAULT 0;
ALTER TABLE bodies ADD COLUMN pictured integer NOT NULL DEFAULT 0;
ALTER TABLE trials ADD COLUMN pictured integer NOT NULL DEFAULT 0;
UPDATE brushes SET pictured = revision WHERE picture IS NOT NULL;
UPDATE alphas SET pictured = revision WHERE picture IS NOT NULL;
UPDATE sources SET pictured = revision WHERE picture IS NOT NULL;

-- Lists go in this order, a page at a time.
CREATE INDEX brushes_listed ON brushes (created_at, id) WHERE deleted_at IS NULL;
CREATE INDEX alphas_listed ON alphas (created_at, id) WHERE deleted_at IS NULL;
CREATE INDEX sources_listed ON sources (created_at, id) WHERE deleted_at IS NULL;
CREATE INDEX bodies_listed ON bodies (created_at, id) WHERE deleted_at IS NULL;
CREATE INDEX trials_listed ON trials (created_at, id) WHERE deleted_at IS NULL;

-- What drafts name that lie in a browser, by browser: it stays as long as the draft does.
CREATE TABLE holds (
  holder uuid NOT NULL,
  hash text NOT NULL,
  seen_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (holder, hash)
);
CREATE INDEX holds_hash ON holds (hash);
