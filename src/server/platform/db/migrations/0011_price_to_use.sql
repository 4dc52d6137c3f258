-- Where a price holds, with or without tax, and who asks it; the same amount in two shops is two prices.
ALTER TABLE every_price ADD COLUMN region text NOT NULL DEFAULT '';
ALTER TABLE every_price ADD COLUMN tax text CHECK (tax IN ('with', 'without'));
ALTER TABLE every_price ADD COLUMN shop text NOT NULL DEFAULT '';
ALTER TABLE every_price ADD COLUMN note text NOT NULL DEFAULT '';
ALTER TABLE every_price DROP CONSTRAINT price_specimen_id_kind_currency_effective_on_amount_key;
CREATE UNIQUE INDEX price_once
ON every_price (specimen_id, kind, currency, effective_on, amount, region, coalesce(tax, ''), shop);
CREATE OR REPLACE VIEW price AS SELECT * FROM every_price WHERE NOT left_out;

-- How units stand to each other. What a unit needs may be a unit of the catalogue, with its prices, or something typed.
CREATE TABLE unit_relation (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  specimen_id bigint NOT NULL REFERENCES every_specimen (id),
  kind text NOT NULL CHECK (kind IN ('replaces', 'cheaper-sibling', 'same-capsule', 'needs')),
  other_id bigint REFERENCES every_specimen (id),
  name text NOT NULL DEFAULT '',
  -- Uses that a part is needed for; none: every use.
  uses jsonb NOT NULL DEFAULT '[]',
  amount numeric(12, 2) CHECK (amount > 0),
  currency char(3),
  price_on date,
  effective_on date NOT NULL,
  -- From this day on it does not hold any more.
  ended_on date,
  recorded_at timestamptz NOT NULL DEFAULT now(),
  CHECK ((other_id IS NULL) <> (name = ''))
);
CREATE INDEX unit_relation_specimen ON unit_relation (specimen_id);
CREATE INDEX unit_relation_other ON unit_relation (other_id);
