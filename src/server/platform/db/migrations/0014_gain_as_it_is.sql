-- A device without decibels has a dial, or turns by itself: then the place stands in the take's settings under "dial".
ALTER TABLE every_take ALTER COLUMN gain_db DROP NOT NULL;

-- By which version of the figures over several takes a run was measured: new ones need no clip to be analysed anew.
CREATE TABLE run_measured (
  run_id bigint PRIMARY KEY REFERENCES every_run (id) ON DELETE CASCADE,
  algorithm_version integer NOT NULL,
  figures_version integer NOT NULL
);
