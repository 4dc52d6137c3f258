-- What was noted with a take of a running session can be corrected; each change keeps what stood before.
ALTER TABLE slot_take ADD COLUMN changes jsonb NOT NULL DEFAULT '[]';

-- Runs, takes, prices, sessions and tests can be left out, and taken back. What counts is a view under the old name,
-- so that no question can forget to leave them out.
ALTER TABLE run ADD COLUMN left_out boolean NOT NULL DEFAULT false;
ALTER TABLE run RENAME TO every_run;
CREATE VIEW run AS SELECT * FROM every_run WHERE NOT left_out;

ALTER TABLE take ADD COLUMN left_out boolean NOT NULL DEFAULT false;
ALTER TABLE take RENAME TO every_take;
CREATE VIEW take AS SELECT * FROM every_take WHERE NOT left_out;

ALTER TABLE price ADD COLUMN left_out boolean NOT NULL DEFAULT false;
ALTER TABLE price RENAME TO every_price;
CREATE VIEW price AS SELECT * FROM every_price WHERE NOT left_out;

ALTER TABLE session_plan ADD COLUMN left_out boolean NOT NULL DEFAULT false;
ALTER TABLE session_plan RENAME TO every_session_plan;
CREATE VIEW session_plan AS SELECT * FROM every_session_plan WHERE NOT left_out;

ALTER TABLE listening_test ADD COLUMN left_out boolean NOT NULL DEFAULT false;
ALTER TABLE listening_test RENAME TO every_listening_test;
CREATE VIEW listening_test AS SELECT * FROM every_listening_test WHERE NOT left_out;

-- What was corrected, with what stood before: a correction that is undone stays, with the moment it was undone.
CREATE TABLE correction (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  change jsonb NOT NULL,
  before jsonb NOT NULL,
  -- In words, as it was made.
  text text NOT NULL,
  reason text NOT NULL DEFAULT '',
  -- Units that it is about: a run that was moved is about two.
  specimens jsonb NOT NULL DEFAULT '[]',
  made_at timestamptz NOT NULL,
  undone_at timestamptz
);
