-- A tone of known level at the input ties dBFS of an interface to volts.
ALTER TABLE every_take ADD COLUMN level_dbu double precision;
CREATE OR REPLACE VIEW take AS SELECT * FROM every_take WHERE NOT left_out;

-- A unit as everybody speaks of it: the specimen with the names of its model.
CREATE VIEW unit AS
SELECT s.id, s.label, s.model_id, m.maker, m.name AS model, m.category,
       m.maker || ' ' || m.name || ' · ' || s.label AS name
FROM specimen s JOIN model m ON m.id = s.model_id;
