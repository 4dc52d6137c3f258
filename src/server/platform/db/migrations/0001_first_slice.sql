-- Facts are appended with the day they hold (effective_on) and the moment they were noted (recorded_at);
-- a correction is a newer row, never an overwrite. Clips themselves are files, not rows.

CREATE TABLE model (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  maker text NOT NULL,
  name text NOT NULL,
  category text NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (maker, name, category)
);

CREATE TABLE specimen (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  model_id bigint NOT NULL REFERENCES model (id),
  label text NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (model_id, label)
);

-- Where a unit is: on the desk, or put away. The newest row counts.
CREATE TABLE custody (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  specimen_id bigint NOT NULL REFERENCES specimen (id),
  on_desk boolean NOT NULL,
  effective_on date NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX custody_specimen ON custody (specimen_id, id);

CREATE TABLE price (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  specimen_id bigint NOT NULL REFERENCES specimen (id),
  amount numeric(12, 2) NOT NULL CHECK (amount > 0),
  currency char(3) NOT NULL,
  kind text NOT NULL CHECK (kind IN ('list', 'street', 'sale', 'used', 'paid')),
  effective_on date NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (specimen_id, kind, currency, effective_on, amount)
);

CREATE TABLE protocol (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  slug text NOT NULL UNIQUE,
  category text NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE protocol_version (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  protocol_id bigint NOT NULL REFERENCES protocol (id),
  version integer NOT NULL CHECK (version >= 1),
  document jsonb NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (protocol_id, version)
);

CREATE TABLE step (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  protocol_version_id bigint NOT NULL REFERENCES protocol_version (id),
  slug text NOT NULL,
  ordinal integer NOT NULL,
  title text NOT NULL,
  UNIQUE (protocol_version_id, slug)
);

-- A measuring session: a day at the desk.
CREATE TABLE session (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  held_on date NOT NULL UNIQUE,
  recorded_at timestamptz NOT NULL DEFAULT now()
);

-- One protocol, run once on one specimen.
CREATE TABLE run (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  session_id bigint NOT NULL REFERENCES session (id),
  specimen_id bigint NOT NULL REFERENCES specimen (id),
  protocol_version_id bigint NOT NULL REFERENCES protocol_version (id),
  source text NOT NULL,
  -- SHA-256 of the document and of its clips: the same run imported twice is one run.
  import_key text NOT NULL UNIQUE,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX run_specimen ON run (specimen_id);
CREATE INDEX run_session ON run (session_id);

CREATE TABLE clip (
  sha256 char(64) PRIMARY KEY,
  bytes bigint NOT NULL,
  container text NOT NULL,
  encoding text NOT NULL,
  sample_rate_hz integer NOT NULL,
  channels integer NOT NULL,
  duration_s double precision NOT NULL,
  original_name text NOT NULL,
  -- Set where only the part that was there of a truncated file has been kept.
  salvage jsonb,
  recorded_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE take (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  run_id bigint NOT NULL REFERENCES run (id),
  step_id bigint NOT NULL REFERENCES step (id),
  clip_sha256 char(64) NOT NULL REFERENCES clip (sha256),
  gain_db double precision NOT NULL,
  distance_m double precision,
  angle_deg double precision,
  ordinal integer NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX take_run ON take (run_id);
CREATE INDEX take_clip ON take (clip_sha256);

-- A clip through one version of the algorithms. A newer version makes a new row; both stay.
CREATE TABLE analysis (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  clip_sha256 char(64) NOT NULL REFERENCES clip (sha256),
  algorithm_version integer NOT NULL,
  status text NOT NULL CHECK (status IN ('queued', 'running', 'done', 'failed')),
  reason text,
  attempts integer NOT NULL DEFAULT 0,
  summary jsonb,
  detail jsonb,
  measurements jsonb,
  -- K-weighted power in steps of 100 ms, float64, little-endian.
  step_powers bytea,
  -- Lowest and highest sample per column, float32, little-endian.
  waveform bytea,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  finished_at timestamptz,
  UNIQUE (clip_sha256, algorithm_version)
);
CREATE INDEX analysis_unfinished ON analysis (status) WHERE status <> 'done';

-- Figures that take several clips of one run.
CREATE TABLE measurement (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  run_id bigint NOT NULL REFERENCES run (id),
  quantity text NOT NULL,
  algorithm_version integer NOT NULL,
  value double precision,
  uncertainty double precision,
  bound text NOT NULL,
  not_measured text,
  document jsonb NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (run_id, quantity, algorithm_version)
);

CREATE TABLE rubric (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  slug text NOT NULL UNIQUE,
  category text NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE rubric_version (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  rubric_id bigint NOT NULL REFERENCES rubric (id),
  version integer NOT NULL CHECK (version >= 1),
  document jsonb NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (rubric_id, version)
);

-- Points given by hand. The newest row of a criterion counts.
CREATE TABLE points (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  specimen_id bigint NOT NULL REFERENCES specimen (id),
  rubric_version_id bigint NOT NULL REFERENCES rubric_version (id),
  run_id bigint REFERENCES run (id),
  criterion text NOT NULL,
  value double precision NOT NULL CHECK (value >= 0 AND value <= 5),
  reason text,
  effective_on date NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX points_specimen ON points (specimen_id, criterion, id);
