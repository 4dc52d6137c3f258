-- What was noted with a take of a running session can be corrected; each change keeps what stood before.
ALTER TABLE slot_take ADD COLUMN changes jsonb NOT NULL DEFAULT '[]';
