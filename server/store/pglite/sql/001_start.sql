-- Blobs are content-addressed and lie in rows of 1 MiB, which COPY moves many times faster than parameters do.
CREATE TABLE blobs (
  hash text PRIMARY KEY,
  bytes bigint NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE TABLE blob_parts (
  hash text NOT NULL REFERENCES blobs(hash) ON DELETE CASCADE,
  part integer NOT NULL,
  data bytea NOT NULL,
  PRIMARY KEY (hash, part)
);
ALTER TABLE blob_parts ALTER COLUMN data SET STORAGE EXTERNAL;

CREATE TABLE sources (
  id uuid PRIMARY KEY,
  name text NOT NULL,
  kind text NOT NULL,
  doc jsonb NOT NULL,
  revision integer NOT NULL DEFAULT 1,
  picture bytea,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  deleted_at timestamptz
);
CREATE TABLE alphas (
  id uuid PRIMARY KEY,
  name text NOT NULL,
  kind text NOT NULL,
  doc jsonb NOT NULL,
  revision integer NOT NULL DEFAULT 1,
  picture bytea,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  deleted_at timestamptz
);
CREATE TABLE brushes (
  id uuid PRIMARY KEY,
  name text NOT NULL,
  kind text NOT NULL,
  doc jsonb NOT NULL,
  -- Base brushes come with the program: read-only, copied on edit.
  base boolean NOT NULL DEFAULT false,
  revision integer NOT NULL DEFAULT 1,
  picture bytea,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  deleted_at timestamptz
);
CREATE TABLE packs (
  id uuid PRIMARY KEY,
  name text NOT NULL,
  kind text NOT NULL,
  doc jsonb NOT NULL,
  revision integer NOT NULL DEFAULT 1,
  picture bytea,
  created_at timestamptz NOT NULL DEFAULT now(),
  updated_at timestamptz NOT NULL DEFAULT now(),
  deleted_at timestamptz
);
CREATE UNIQUE INDEX sources_name ON sources (lower(name)) WHERE deleted_at IS NULL;
CREATE UNIQUE INDEX alphas_name ON alphas (lower(name)) WHERE deleted_at IS NULL;
CREATE UNIQUE INDEX brushes_name ON brushes (lower(name)) WHERE deleted_at IS NULL;
CREATE UNIQUE INDEX packs_name ON packs (lower(name)) WHERE deleted_at IS NULL;

-- What a document was before each save.
CREATE TABLE revisions (
  collection text NOT NULL,
  id uuid NOT NULL,
  revision integer NOT NULL,
  doc jsonb NOT NULL,
  saved_at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (collection, id, revision)
);

-- The brushes at hand, in their order.
CREATE TABLE belt (
  place integer PRIMARY KEY,
  brush_id uuid NOT NULL UNIQUE REFERENCES brushes(id)
);
