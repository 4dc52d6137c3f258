-- What a person makes of a word that listeners said: it counts as another one, or is no word of sound. The newest line of
-- a word counts; the others are how it was before.
CREATE TABLE word_meaning (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  word text NOT NULL,
  meaning jsonb NOT NULL,
  noted_at timestamptz NOT NULL
);
CREATE INDEX word_meaning_word ON word_meaning (word, id);
