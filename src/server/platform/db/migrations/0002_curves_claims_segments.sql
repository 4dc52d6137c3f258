-- The second version of the measurements: sweeps, distances and calibration need more of a take and a run, and give
-- curves beside figures; what a person marks in a clip is kept apart from what was found automatically.

ALTER TABLE take ADD COLUMN level_db_spl double precision;
ALTER TABLE take ADD COLUMN wind_speed_ms double precision;

-- Input level that reaches full scale at 0 dB of gain; null where nobody knows it.
ALTER TABLE run ADD COLUMN full_scale_dbu double precision;

-- What a data sheet says. The newest claim of a quantity counts.
CREATE TABLE claim (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  specimen_id bigint NOT NULL REFERENCES specimen (id),
  quantity text NOT NULL,
  value double precision NOT NULL,
  unit text NOT NULL,
  condition text NOT NULL,
  effective_on date NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (specimen_id, quantity, value, unit, condition)
);

-- Curves of a run: response, directions, distances.
CREATE TABLE curve (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  run_id bigint NOT NULL REFERENCES run (id),
  kind text NOT NULL,
  algorithm_version integer NOT NULL,
  document jsonb NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (run_id, kind, algorithm_version)
);

-- Speech, silence and events as a person has set them, with what was measured by them. The newest row of a clip and a
-- version counts; one without segments means: back to the automatic ones.
CREATE TABLE segment_choice (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  clip_sha256 char(64) NOT NULL REFERENCES clip (sha256),
  algorithm_version integer NOT NULL,
  segments jsonb,
  summary jsonb,
  detail jsonb,
  measurements jsonb,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX segment_choice_clip ON segment_choice (clip_sha256, algorithm_version, id DESC);
