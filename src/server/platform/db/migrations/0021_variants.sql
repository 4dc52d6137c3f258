-- A unit in another configuration: the same piece of gear with another connection, pattern, switch, emulation or
-- firmware, with runs and figures of its own. What it costs and what its sheet says is that of the unit, unless it says
-- otherwise itself. A configuration has none of its own.
ALTER TABLE every_specimen ADD COLUMN variant_of bigint REFERENCES every_specimen (id);
ALTER TABLE every_specimen ADD COLUMN configuration text NOT NULL DEFAULT '';
ALTER TABLE every_specimen ADD COLUMN varies text
  CHECK (varies IN ('connection', 'pattern', 'switch', 'emulation', 'firmware', 'other'));
ALTER TABLE every_specimen ADD CONSTRAINT variant_says_what
  CHECK ((variant_of IS NULL) = (varies IS NULL) AND (variant_of IS NULL) = (configuration = '') AND variant_of <> id);
CREATE INDEX specimen_variant_of ON every_specimen (variant_of) WHERE variant_of IS NOT NULL;
CREATE OR REPLACE VIEW specimen AS
SELECT id, model_id, label, recorded_at, variant_of, configuration, varies FROM every_specimen WHERE merged_into IS NULL;
CREATE OR REPLACE VIEW unit AS
SELECT s.id, s.label, s.model_id, m.maker, m.name AS model, m.category,
       m.maker || ' ' || m.name || ' · ' || s.label AS name, s.variant_of, s.configuration, s.varies
FROM specimen s JOIN model m ON m.id = s.model_id;

-- Which configuration of a unit stands in rankings; null: each by itself. The newest row counts; without one the unit
-- itself does.
CREATE TABLE family_counting (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  specimen_id bigint NOT NULL REFERENCES every_specimen (id),
  counts_id bigint REFERENCES every_specimen (id),
  effective_on date NOT NULL,
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX family_counting_specimen ON family_counting (specimen_id, id DESC);
