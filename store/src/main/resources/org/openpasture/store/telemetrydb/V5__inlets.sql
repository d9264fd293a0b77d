-- The inlet that a message came by, and when it says that it was sent.
ALTER TABLE frame ADD COLUMN inlet_id TEXT;
ALTER TABLE frame ADD COLUMN sent_at INTEGER;
CREATE INDEX frame_by_inlet ON frame (inlet_id, id) WHERE inlet_id IS NOT NULL;

-- As for uplinks: the newest data of each device is looked up at every start.
CREATE INDEX message_by_device ON frame (device_id, id) WHERE kind = 'message' AND outcome = 'ACCEPTED';
