-- As for single messages: the newest data of each device is looked up at every start.
CREATE INDEX messages_by_device ON frame (device_id, id) WHERE kind = 'messages' AND outcome = 'ACCEPTED';
