-- From which of the owner's other devices a fact was noted; null: from this machine. A transaction says it once, as a
-- setting of its own, and no statement has to name it.
CREATE FUNCTION noting_device() RETURNS bigint LANGUAGE sql STABLE AS $$
  SELECT nullif(current_setting('sediment.device', true), '')::bigint
$$;

ALTER TABLE every_run ADD COLUMN device_id bigint REFERENCES device_session (id) DEFAULT noting_device();
ALTER TABLE every_price ADD COLUMN device_id bigint REFERENCES device_session (id) DEFAULT noting_device();
ALTER TABLE points ADD COLUMN device_id bigint REFERENCES device_session (id) DEFAULT noting_device();
ALTER TABLE sheet_entry ADD COLUMN device_id bigint REFERENCES device_session (id) DEFAULT noting_device();
ALTER TABLE unit_event ADD COLUMN device_id bigint REFERENCES device_session (id) DEFAULT noting_device();
ALTER TABLE unit_relation ADD COLUMN device_id bigint REFERENCES device_session (id) DEFAULT noting_device();
ALTER TABLE photograph ADD COLUMN device_id bigint REFERENCES device_session (id) DEFAULT noting_device();
ALTER TABLE correction ADD COLUMN device_id bigint REFERENCES device_session (id) DEFAULT noting_device();
ALTER TABLE removal ADD COLUMN device_id bigint REFERENCES device_session (id) DEFAULT noting_device();

CREATE VIEW noted_elsewhere AS
SELECT device_id, 'run' AS what, recorded_at FROM every_run WHERE device_id IS NOT NULL
UNION ALL SELECT device_id, 'price', recorded_at FROM every_price WHERE device_id IS NOT NULL
UNION ALL SELECT device_id, 'points', recorded_at FROM points WHERE device_id IS NOT NULL
UNION ALL SELECT device_id, 'entry of a sheet', recorded_at FROM sheet_entry WHERE device_id IS NOT NULL
UNION ALL SELECT device_id, 'event', recorded_at FROM unit_event WHERE device_id IS NOT NULL
UNION ALL SELECT device_id, 'relation', recorded_at FROM unit_relation WHERE device_id IS NOT NULL
UNION ALL SELECT device_id, 'photograph', recorded_at FROM photograph WHERE device_id IS NOT NULL
UNION ALL SELECT device_id, 'correction', made_at FROM correction WHERE device_id IS NOT NULL
UNION ALL SELECT device_id, 'deletion', removed_at FROM removal WHERE device_id IS NOT NULL;
