-- What a person writes about a unit, as it is being written. A unit can be reviewed again: then it has several.
CREATE TABLE review (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  specimen_id bigint NOT NULL REFERENCES every_specimen (id),
  opened_on date NOT NULL,
  -- Goes up with each saving: of two that go on from the same one, the second is told.
  revision integer NOT NULL DEFAULT 1,
  document jsonb NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX review_specimen ON review (specimen_id);

-- What was published, as it was. The text is kept byte by byte, so that its hash can be counted again.
CREATE TABLE edition (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  review_id bigint NOT NULL REFERENCES review (id) ON DELETE CASCADE,
  number integer NOT NULL CHECK (number >= 1),
  published_on date NOT NULL,
  document text NOT NULL,
  sha256 char(64) NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (review_id, number)
);

-- An edition is never changed: a correction makes the next one.
CREATE FUNCTION edition_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'an edition is never changed';
END
$$;
CREATE TRIGGER edition_stays BEFORE UPDATE ON edition FOR EACH ROW EXECUTE FUNCTION edition_stays();

-- How this desk reviews and publishes: versions, of which the newest counts.
CREATE TABLE house_version (
  version integer PRIMARY KEY CHECK (version >= 1),
  document jsonb NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
