-- Photographs of a unit, its box, its set-up: files by the hash of their bytes, without what the camera wrote beside them.
CREATE TABLE photograph (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  specimen_id bigint NOT NULL REFERENCES every_specimen (id),
  sha256 char(64) NOT NULL,
  format text NOT NULL CHECK (format IN ('jpeg', 'png', 'webp')),
  bytes bigint NOT NULL,
  width_px integer NOT NULL,
  height_px integer NOT NULL,
  subject text NOT NULL CHECK (subject IN ('unit', 'box', 'set-up')),
  caption text NOT NULL DEFAULT '',
  effective_on date NOT NULL,
  left_out boolean NOT NULL DEFAULT false,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX photograph_specimen ON photograph (specimen_id);
CREATE INDEX photograph_sha256 ON photograph (sha256);
