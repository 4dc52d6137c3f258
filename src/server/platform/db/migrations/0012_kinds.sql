-- What a person has made of a kind of gear, or a kind that they have added: versions, of which the newest counts.
CREATE TABLE kind_version (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  kind text NOT NULL,
  version integer NOT NULL CHECK (version >= 1),
  document jsonb NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (kind, version)
);

-- Views of a list under a name, with what the address of the page says.
CREATE TABLE saved_list (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  name text NOT NULL,
  page text NOT NULL CHECK (page IN ('ranking', 'gear', 'scale')),
  query jsonb NOT NULL,
  removed_at timestamptz,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
