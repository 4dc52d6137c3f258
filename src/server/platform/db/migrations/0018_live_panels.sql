-- What happened in a live panel, in its order: who was heard under which letter, what was on, who ordered how, what was
-- said when. The state of a panel is made of these lines alone; none is ever changed.
CREATE TABLE panel_entry (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  test_id bigint NOT NULL REFERENCES every_listening_test (id) ON DELETE CASCADE,
  -- Of whom; null for what the one who leads did, and for words of nobody in particular.
  sitting_id bigint REFERENCES sitting (id) ON DELETE CASCADE,
  document jsonb NOT NULL,
  made_at timestamptz NOT NULL
);
CREATE INDEX panel_entry_test ON panel_entry (test_id, id);

CREATE FUNCTION panel_entry_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'what happened in a panel is never changed';
END
$$;
CREATE TRIGGER panel_entry_stays BEFORE UPDATE ON panel_entry FOR EACH ROW EXECUTE FUNCTION panel_entry_stays();

-- A word that was said in a panel belongs to no trial: it may be said by nobody in particular, and at any time.
ALTER TABLE heard_word ADD COLUMN panel_entry_id bigint REFERENCES panel_entry (id) ON DELETE SET NULL;
CREATE INDEX heard_word_panel_entry ON heard_word (panel_entry_id) WHERE panel_entry_id IS NOT NULL;
