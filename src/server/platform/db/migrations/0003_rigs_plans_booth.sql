-- Rigs with their dates, sessions planned ahead and run in the booth, and what a take needs to be repeated.

-- A chain as it was from a day on. A change is a newer row of the same name.
CREATE TABLE rig (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  name text NOT NULL,
  effective_on date NOT NULL,
  document jsonb NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX rig_name ON rig (name, effective_on, id);

CREATE TABLE calibration (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  rig_id bigint NOT NULL REFERENCES rig (id),
  kind text NOT NULL CHECK (kind IN ('sound-level', 'electrical', 'loopback')),
  fed_in double precision,
  gain_db double precision,
  reading double precision NOT NULL,
  result double precision NOT NULL,
  uncertainty double precision,
  clip_sha256 char(64) REFERENCES clip (sha256),
  note text NOT NULL,
  effective_on date NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX calibration_rig ON calibration (rig_id, kind, id);

ALTER TABLE run ADD COLUMN rig_id bigint REFERENCES rig (id);
-- Control takes open and close a session.
ALTER TABLE run ADD COLUMN purpose text NOT NULL DEFAULT 'unit' CHECK (purpose IN ('opening', 'unit', 'closing'));

ALTER TABLE take ADD COLUMN note text NOT NULL DEFAULT '';
-- Pad, low-cut, pattern, phantom power, dial, recorder.
ALTER TABLE take ADD COLUMN settings jsonb NOT NULL DEFAULT '{}';
-- Checks that found something and were overruled, with the reason.
ALTER TABLE take ADD COLUMN overruled jsonb NOT NULL DEFAULT '[]';

-- Repairs, firmware, days to be back.
CREATE TABLE unit_event (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  specimen_id bigint NOT NULL REFERENCES specimen (id),
  kind text NOT NULL CHECK (kind IN ('firmware', 'repair', 'due-back', 'note')),
  note text NOT NULL,
  effective_on date NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX unit_event_specimen ON unit_event (specimen_id, kind, id);

CREATE TABLE session_plan (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  document jsonb NOT NULL,
  status text NOT NULL CHECK (status IN ('planned', 'running', 'done', 'cancelled')),
  cautions_seen jsonb NOT NULL DEFAULT '[]',
  started_at timestamptz,
  finished_at timestamptz,
  recorded_at timestamptz NOT NULL DEFAULT now()
);

-- A unit's turn in a session: its takes, until they become a run.
CREATE TABLE session_slot (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  plan_id bigint NOT NULL REFERENCES session_plan (id),
  ordinal integer NOT NULL,
  purpose text NOT NULL CHECK (purpose IN ('opening', 'unit', 'closing')),
  unit jsonb NOT NULL,
  steps jsonb NOT NULL,
  run_id bigint REFERENCES run (id),
  started_at timestamptz,
  finished_at timestamptz,
  UNIQUE (plan_id, ordinal)
);

CREATE TABLE slot_take (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  slot_id bigint NOT NULL REFERENCES session_slot (id),
  step text NOT NULL,
  attempt integer NOT NULL,
  clip_sha256 char(64) NOT NULL REFERENCES clip (sha256),
  settings jsonb NOT NULL,
  verdict text NOT NULL CHECK (verdict IN ('keep', 'look', 'redo')),
  findings jsonb NOT NULL,
  overruled jsonb NOT NULL DEFAULT '[]',
  state text NOT NULL CHECK (state IN ('open', 'kept', 'retaken')),
  note text NOT NULL DEFAULT '',
  recorded_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (slot_id, step, attempt)
);

-- Tables filled in at a step. The newest row of a slot (or run) and a step counts.
CREATE TABLE table_reading (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  slot_id bigint REFERENCES session_slot (id),
  run_id bigint REFERENCES run (id),
  step text NOT NULL,
  cells jsonb NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX table_reading_slot ON table_reading (slot_id, step, id);
CREATE INDEX table_reading_run ON table_reading (run_id, step, id);
