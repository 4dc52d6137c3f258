-- A listening test that is sent out: its key, sealed before anybody has heard a clip. Text and sealed file are kept byte
-- by byte, so that the hash that was published can be counted again.
CREATE TABLE blind_pack (
  test_id bigint PRIMARY KEY REFERENCES every_listening_test (id) ON DELETE CASCADE,
  key_text text NOT NULL,
  key_sha256 char(64) NOT NULL,
  opening_code text NOT NULL,
  -- Names that are guessed among, in the order in which the pack offers them.
  document jsonb NOT NULL,
  sealed_on date NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);

CREATE FUNCTION blind_pack_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'the key of a blind pack is never changed';
END
$$;
CREATE TRIGGER blind_pack_stays BEFORE UPDATE ON blind_pack FOR EACH ROW EXECUTE FUNCTION blind_pack_stays();

-- What answers of a sitting weigh on the scale: of those that came back from outside, how likely it is that somebody
-- listened. Null: held here.
ALTER TABLE sitting ADD COLUMN reliability double precision CHECK (reliability BETWEEN 0 AND 1);
-- What was pasted or sent, of an answer that came back: so that it can be looked at again, and is not taken in twice.
ALTER TABLE sitting ADD COLUMN came_as text;
