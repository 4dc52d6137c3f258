-- The compressed file or the film that a clip was decoded from: its hash, name, container, codec and bit rate.
ALTER TABLE clip ADD COLUMN origin jsonb;
CREATE INDEX clip_origin ON clip ((origin ->> 'sha256')) WHERE origin IS NOT NULL;
