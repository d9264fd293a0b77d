-- What network and device have agreed on beside keys and counters, as JSON (see MacState).
CREATE TABLE radio_mac (
  device_id TEXT PRIMARY KEY,
  state     TEXT NOT NULL
) WITHOUT ROWID;

-- What people want to have sent to devices, and how far it is.
CREATE TABLE command (
  id         INTEGER PRIMARY KEY,
  device_id  TEXT    NOT NULL,
  wanted_at  INTEGER NOT NULL,
  person     TEXT    NOT NULL,
  what       TEXT    NOT NULL,
  setting    TEXT,
  value      DOUBLE,
  port       INTEGER NOT NULL,
  payload    BLOB    NOT NULL,
  confirmed  INTEGER NOT NULL,
  state      TEXT    NOT NULL,
  tries      INTEGER NOT NULL,
  counter    INTEGER NOT NULL,
  changed_at INTEGER NOT NULL,
  reason     TEXT    NOT NULL
);
CREATE INDEX command_by_device ON command (device_id, id);

-- The newest data of each device is looked up at every start.
CREATE INDEX frame_data_by_device ON frame (device_id, id) WHERE kind = 'uplink' AND outcome = 'ACCEPTED';
