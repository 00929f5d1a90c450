-- Bodies of one's own that brushes are proved on, and sets of test strokes.
CREATE TABLE bodies (
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
CREATE TABLE trials (
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
CREATE UNIQUE INDEX bodies_name ON bodies (lower(name)) WHERE deleted_at IS NULL;
CREATE UNIQUE INDEX trials_name ON trials (lower(name)) WHERE deleted_at IS NULL;
