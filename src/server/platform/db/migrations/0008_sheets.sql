-- Data sheets: every field of a kind of gear, typed. The newest entry of a field counts; one without a value takes back
-- what stood there, with the reason.

CREATE TABLE sheet_entry (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  specimen_id bigint NOT NULL REFERENCES specimen (id),
  field text NOT NULL,
  value jsonb,
  reason text NOT NULL DEFAULT '',
  effective_on date NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX sheet_entry_specimen ON sheet_entry (specimen_id, field, effective_on DESC, id DESC);

-- Claims are entries of a sheet, in the field that is named as their figure. What their unit says of the weighting is a
-- condition.
INSERT INTO sheet_entry (specimen_id, field, value, effective_on, recorded_at)
SELECT specimen_id, quantity,
       jsonb_build_object(
         'type', 'number',
         'value', value,
         'unit', regexp_replace(unit, '\s*\(A\)$', ''),
         'condition', concat_ws(', ', CASE WHEN unit LIKE '%(A)' AND condition !~* '\ma\M' THEN 'A-weighted' END, nullif(condition, ''))),
       effective_on, recorded_at
FROM claim ORDER BY id;
DROP TABLE claim;

-- An instrument's sound is what a protocol records; what records it is a microphone.
UPDATE specimen s SET label = s.label || ' (instrument)'
FROM model old JOIN model new ON new.maker = old.maker AND new.name = old.name AND new.category = 'microphone'
WHERE s.model_id = old.id AND old.category = 'instrument-source'
  AND EXISTS (SELECT 1 FROM specimen other WHERE other.model_id = new.id AND other.label = s.label);
UPDATE specimen s SET model_id = new.id
FROM model old JOIN model new ON new.maker = old.maker AND new.name = old.name AND new.category = 'microphone'
WHERE s.model_id = old.id AND old.category = 'instrument-source';
DELETE FROM model m WHERE m.category = 'instrument-source' AND NOT EXISTS (SELECT 1 FROM specimen s WHERE s.model_id = m.id);
UPDATE model SET category = 'microphone' WHERE category = 'instrument-source';
UPDATE protocol SET category = 'microphone' WHERE category = 'instrument-source';
UPDATE protocol_version SET document = jsonb_set(document, '{category}', '"microphone"')
WHERE document ->> 'category' = 'instrument-source';
UPDATE rubric_version SET document = jsonb_set(document, '{category}', '"microphone"')
WHERE document ->> 'category' = 'instrument-source';
UPDATE every_session_plan SET document = jsonb_set(document, '{category}', '"microphone"')
WHERE document ->> 'category' = 'instrument-source';
UPDATE every_listening_test SET document = jsonb_set(document, '{category}', '"microphone"')
WHERE document ->> 'category' = 'instrument-source';
UPDATE heard_answer SET category = 'microphone' WHERE category = 'instrument-source';
