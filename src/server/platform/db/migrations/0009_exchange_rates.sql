-- What one euro came to on a day. Of two rates of one day and currency the newer row counts.
CREATE TABLE exchange_rate (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  currency char(3) NOT NULL,
  effective_on date NOT NULL,
  rate double precision NOT NULL CHECK (rate > 0),
  recorded_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX exchange_rate_day ON exchange_rate (currency, effective_on, id);
