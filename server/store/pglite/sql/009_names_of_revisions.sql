-- A save that was given a name stays for good.
ALTER TABLE revisions ADD COLUMN name text NOT NULL DEFAULT '';
