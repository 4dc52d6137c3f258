-- Comparisons that are kept, listening tests, and the answers that feed one scale for the whole catalogue.

CREATE TABLE compare_set (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  name text NOT NULL,
  document jsonb NOT NULL,
  removed_at timestamptz,
  recorded_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE listening_test (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  document jsonb NOT NULL,
  status text NOT NULL CHECK (status IN ('preparing', 'failed', 'open', 'closed')),
  -- Why preparing failed.
  problem text,
  -- By this key listeners join.
  invitation text NOT NULL UNIQUE,
  revealed_at timestamptz,
  held_on date NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);

-- What is heard in a test: units, and what is made of them.
CREATE TABLE test_item (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  test_id bigint NOT NULL REFERENCES listening_test (id),
  ordinal integer NOT NULL,
  specimen_id bigint NOT NULL REFERENCES specimen (id),
  take_id bigint REFERENCES take (id),
  role text NOT NULL CHECK (role IN ('unit', 'yardstick', 'reference', 'known-worse', 'anchor-low', 'anchor-mid')),
  -- Of the prepared clip; null where somebody performs live.
  gain_db double precision,
  loudness_lufs double precision,
  UNIQUE (test_id, ordinal)
);

CREATE TABLE listener (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  name text NOT NULL UNIQUE,
  -- Voice preference, hearing, playback device: asked once, deletable.
  about jsonb,
  recorded_at timestamptz NOT NULL DEFAULT now()
);

-- A listener's way through a test; the key opens it on any device.
CREATE TABLE sitting (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  test_id bigint NOT NULL REFERENCES listening_test (id),
  listener_id bigint NOT NULL REFERENCES listener (id),
  ordinal integer NOT NULL,
  key text NOT NULL UNIQUE,
  -- Channels and phase of the headphones, as the listener answered.
  headphones jsonb,
  finished_at timestamptz,
  -- Why the answers do not count; null where they do.
  left_out text,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (test_id, listener_id)
);

CREATE TABLE trial (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  sitting_id bigint NOT NULL REFERENCES sitting (id),
  ordinal integer NOT NULL,
  document jsonb NOT NULL,
  answer jsonb,
  words jsonb,
  seconds double precision,
  answered_at timestamptz,
  UNIQUE (sitting_id, ordinal)
);

-- Answers as the scale takes them: a pair or an order of units, wherever it came from.
CREATE TABLE heard_answer (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  trial_id bigint REFERENCES trial (id),
  listener_id bigint REFERENCES listener (id),
  source text NOT NULL CHECK (source IN ('test', 'placing', 'import')),
  import_key text,
  attribute text NOT NULL,
  voice text,
  purpose text,
  category text NOT NULL,
  -- Best first; for a pair, as it was given.
  specimens jsonb NOT NULL,
  -- Null for an order; of a pair 1, 0.5 or 0.
  outcome double precision,
  ties_allowed boolean NOT NULL DEFAULT false,
  weight double precision NOT NULL DEFAULT 1,
  -- Of each specimen: place in which it was offered, residual level in LU.
  circumstances jsonb NOT NULL DEFAULT '[]',
  sighted boolean NOT NULL DEFAULT false,
  held_on date NOT NULL,
  removed_at timestamptz,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX heard_answer_attribute ON heard_answer (category, attribute, id);
CREATE INDEX heard_answer_import ON heard_answer (import_key);

CREATE TABLE heard_word (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  trial_id bigint REFERENCES trial (id),
  listener_id bigint REFERENCES listener (id),
  specimen_id bigint NOT NULL REFERENCES specimen (id),
  word text NOT NULL,
  is_free boolean NOT NULL,
  held_on date NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX heard_word_specimen ON heard_word (specimen_id);
