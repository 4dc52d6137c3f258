-- The compressed file or the film that a clip was decoded from: its hash, name, container, codec and bit rate.
ALTER TABLE clip ADD COLUMN origin jsonb;
CREATE INDEX clip_origin ON clip ((origin ->> 'sha256')) WHERE origin IS NOT NULL;

-- Of which recording of several channels a clip is one channel: takes that were made at the same moment know each other.
ALTER TABLE clip ADD COLUMN channel_of jsonb;
CREATE INDEX clip_channel_of ON clip ((channel_of ->> 'sha256')) WHERE channel_of IS NOT NULL;

-- The address of a sum whose answer was kept with a unit: all of its numbers, as they were then.
ALTER TABLE unit_event ADD COLUMN sum text;
ALTER TABLE unit_event DROP CONSTRAINT unit_event_kind_check;
ALTER TABLE unit_event ADD CONSTRAINT unit_event_kind_check
  CHECK (kind IN ('firmware', 'repair', 'due-back', 'note', 'sum'));
