-- Everything that people register, one row each. The body is the entity as JSON: the registry lives in memory as one
-- immutable picture, so this table only has to be written and read back as a whole.
CREATE TABLE entity (
  kind      TEXT    NOT NULL,
  id        TEXT    NOT NULL,
  body      TEXT    NOT NULL,
  position  INTEGER NOT NULL,
  PRIMARY KEY (kind, id)
) WITHOUT ROWID;

-- Who changed what, with the entity before and after.
CREATE TABLE trail (
  id        INTEGER PRIMARY KEY AUTOINCREMENT,
  at        INTEGER NOT NULL,
  person    TEXT    NOT NULL,
  kind      TEXT    NOT NULL,
  entity_id TEXT    NOT NULL,
  before    TEXT,
  after     TEXT
);

-- Keys of devices and passwords of mail servers, encrypted with the key file beside the database.
CREATE TABLE secret (
  owner_id TEXT NOT NULL,
  name     TEXT NOT NULL,
  sealed   BLOB NOT NULL,
  PRIMARY KEY (owner_id, name)
) WITHOUT ROWID;

CREATE TABLE credential (
  person_id     TEXT PRIMARY KEY,
  password_hash TEXT NOT NULL
) WITHOUT ROWID;

-- Sign-ins and tokens of programs; the token itself is never kept.
CREATE TABLE access_token (
  token_hash TEXT    PRIMARY KEY,
  person_id  TEXT    NOT NULL,
  purpose    TEXT    NOT NULL,
  note       TEXT    NOT NULL,
  created_at INTEGER NOT NULL,
  expires_at INTEGER NOT NULL
) WITHOUT ROWID;

CREATE TABLE invitation (
  id           TEXT    PRIMARY KEY,
  token_hash   TEXT    NOT NULL UNIQUE,
  name         TEXT    NOT NULL,
  email        TEXT    NOT NULL,
  access_right TEXT    NOT NULL,
  target_id    TEXT    NOT NULL,
  created_by   TEXT    NOT NULL,
  expires_at   INTEGER NOT NULL
) WITHOUT ROWID;

CREATE TABLE alert (
  id              TEXT    PRIMARY KEY,
  rule_id         TEXT    NOT NULL,
  rule_name       TEXT    NOT NULL,
  severity        TEXT    NOT NULL,
  place_id        TEXT    NOT NULL,
  point_id        TEXT,
  started_at      INTEGER NOT NULL,
  raised_at       INTEGER NOT NULL,
  trigger_value   DOUBLE,
  unit            TEXT    NOT NULL,
  limit_text      TEXT    NOT NULL,
  summary         TEXT    NOT NULL,
  guidance        TEXT    NOT NULL,
  state           TEXT    NOT NULL,
  acknowledged_at INTEGER,
  acknowledged_by TEXT,
  returned_at     INTEGER,
  return_value    DOUBLE,
  closed_at       INTEGER
);
CREATE INDEX alert_by_time ON alert (raised_at);
CREATE INDEX alert_open ON alert (closed_at) WHERE closed_at IS NULL;

CREATE TABLE alert_note (
  id       INTEGER PRIMARY KEY AUTOINCREMENT,
  alert_id TEXT    NOT NULL,
  at       INTEGER NOT NULL,
  person   TEXT    NOT NULL,
  text     TEXT    NOT NULL
);
CREATE INDEX alert_note_by_alert ON alert_note (alert_id);

-- The outbox: messages to people, and what became of them.
CREATE TABLE notice (
  id         TEXT    PRIMARY KEY,
  alert_id   TEXT,
  recipient  TEXT    NOT NULL,
  subject    TEXT    NOT NULL,
  body       TEXT    NOT NULL,
  state      TEXT    NOT NULL,
  attempts   INTEGER NOT NULL,
  last_error TEXT,
  created_at INTEGER NOT NULL,
  next_at    INTEGER NOT NULL,
  sent_at    INTEGER
);
CREATE INDEX notice_waiting ON notice (next_at) WHERE state = 'waiting';
CREATE INDEX notice_by_alert ON notice (alert_id);

CREATE TABLE setting (
  name TEXT PRIMARY KEY,
  body TEXT NOT NULL
) WITHOUT ROWID;
