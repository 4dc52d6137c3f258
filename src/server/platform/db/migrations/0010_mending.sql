-- A unit that was entered twice becomes part of the other one: what it had is moved, and what was moved is kept, so that
-- the two can be taken apart again. Its names go on meaning the unit that it is part of.
ALTER TABLE specimen ADD COLUMN merged_into bigint REFERENCES specimen (id);
ALTER TABLE specimen RENAME TO every_specimen;
CREATE VIEW specimen AS SELECT id, model_id, label, recorded_at FROM every_specimen WHERE merged_into IS NULL;
CREATE OR REPLACE VIEW unit AS
SELECT s.id, s.label, s.model_id, m.maker, m.name AS model, m.category,
       m.maker || ' ' || m.name || ' · ' || s.label AS name
FROM specimen s JOIN model m ON m.id = s.model_id;

CREATE TABLE unit_merge (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  specimen_id bigint NOT NULL REFERENCES every_specimen (id),
  into_id bigint NOT NULL REFERENCES every_specimen (id),
  -- Rows by table, answers as they stood, and what stopped counting.
  moved jsonb NOT NULL,
  made_at timestamptz NOT NULL,
  apart_at timestamptz
);

-- What was deleted for good leaves this line. Files are named until they are gone: a process that ended between the
-- rows and the files goes on at the next start.
CREATE TABLE removal (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  what text NOT NULL CHECK (what IN ('unit', 'run', 'take', 'photograph')),
  text text NOT NULL,
  reason text NOT NULL DEFAULT '',
  files jsonb NOT NULL DEFAULT '[]',
  removed_at timestamptz NOT NULL
);
