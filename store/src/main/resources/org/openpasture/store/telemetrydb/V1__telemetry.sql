-- One row per commit, holding all its readings and acknowledgements as one blob (see JournalCodec).
CREATE TABLE journal (
  seq        INTEGER PRIMARY KEY AUTOINCREMENT,
  written_at INTEGER NOT NULL,
  events     BLOB    NOT NULL
);

CREATE TABLE frame (
  id          INTEGER PRIMARY KEY AUTOINCREMENT,
  received_at INTEGER NOT NULL,
  kind        TEXT    NOT NULL,
  device_id   TEXT,
  address     TEXT    NOT NULL,
  bytes       BLOB    NOT NULL,
  payload     BLOB    NOT NULL,
  port        INTEGER NOT NULL,
  counter     INTEGER NOT NULL,
  outcome     TEXT    NOT NULL,
  reason      TEXT,
  read_values TEXT    NOT NULL,
  receptions  TEXT    NOT NULL
);
CREATE INDEX frame_by_device ON frame (device_id, id);

-- Radio sessions. A counter is on disk before anything it allows is sent.
CREATE TABLE radio_session (
  device_id TEXT    PRIMARY KEY,
  dev_addr  INTEGER NOT NULL,
  keys      BLOB    NOT NULL,
  last_up   INTEGER NOT NULL,
  next_down INTEGER NOT NULL
) WITHOUT ROWID;

CREATE TABLE used_nonce (
  device_id TEXT    NOT NULL,
  dev_nonce INTEGER NOT NULL,
  PRIMARY KEY (device_id, dev_nonce)
) WITHOUT ROWID;

CREATE TABLE join_counter (
  device_id  TEXT    PRIMARY KEY,
  join_nonce INTEGER NOT NULL
) WITHOUT ROWID;

-- The judging core's state, and the journal row up to which it has judged.
CREATE TABLE checkpoint (
  id          INTEGER PRIMARY KEY CHECK (id = 1),
  journal_seq INTEGER NOT NULL,
  state       TEXT    NOT NULL
);
