-- A tone of known level at the input ties dBFS of an interface to volts.
ALTER TABLE every_take ADD COLUMN level_dbu double precision;
CREATE OR REPLACE VIEW take AS SELECT * FROM every_take WHERE NOT left_out;
