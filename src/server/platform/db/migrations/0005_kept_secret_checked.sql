-- Nothing that was measured is overwritten, clips are checked over time, and what decides a blind test is a secret of
-- the server.

-- Figures and curves that were replaced (other segments, for instance) stay, with the moment they ceased to count.
ALTER TABLE measurement ADD COLUMN superseded_at timestamptz;
ALTER TABLE measurement DROP CONSTRAINT measurement_run_id_quantity_algorithm_version_key;
CREATE UNIQUE INDEX measurement_current ON measurement (run_id, quantity, algorithm_version) WHERE superseded_at IS NULL;
ALTER TABLE curve ADD COLUMN superseded_at timestamptz;
ALTER TABLE curve DROP CONSTRAINT curve_run_id_kind_algorithm_version_key;
CREATE UNIQUE INDEX curve_current ON curve (run_id, kind, algorithm_version) WHERE superseded_at IS NULL;

-- When the bytes of a clip were last held against its name, and what was wrong.
CREATE TABLE clip_check (
  clip_sha256 char(64) PRIMARY KEY REFERENCES clip (sha256),
  checked_at timestamptz NOT NULL,
  problem text
);

-- Orders, controls and the X of a trial are drawn from these. They never leave the server.
ALTER TABLE listening_test ADD COLUMN secret text NOT NULL DEFAULT gen_random_uuid()::text || gen_random_uuid()::text;
ALTER TABLE sitting ADD COLUMN secret text NOT NULL DEFAULT gen_random_uuid()::text || gen_random_uuid()::text;

-- How often each clip of a trial went out to the listener, by its letter: an answer needs all of them.
ALTER TABLE trial ADD COLUMN delivered jsonb NOT NULL DEFAULT '{}';

-- A listener is known by a key; a name is what they want to be called. Whom the operator notes by name has no key.
ALTER TABLE listener DROP CONSTRAINT listener_name_key;
ALTER TABLE listener ADD COLUMN key text UNIQUE;
-- The operator has said that this is the same person.
ALTER TABLE listener ADD COLUMN same_as bigint REFERENCES listener (id);
CREATE INDEX listener_name ON listener (name);

-- One placing of a unit, from its first question to its last.
ALTER TABLE heard_answer ADD COLUMN placing_id text;
CREATE INDEX heard_answer_placing ON heard_answer (placing_id) WHERE placing_id IS NOT NULL;

-- Devices of the owner's that were let in by the token. The cookie itself is not kept, only its hash.
CREATE TABLE device_session (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  key_hash char(64) NOT NULL UNIQUE,
  device text NOT NULL,
  address text NOT NULL,
  revoked_at timestamptz,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
