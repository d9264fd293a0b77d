-- Sessions that a join offered and that no frame of the device has used yet; until then the session before them holds.
CREATE TABLE radio_offer (
  device_id TEXT    PRIMARY KEY,
  dev_addr  INTEGER NOT NULL,
  keys      BLOB    NOT NULL,
  mac       TEXT    NOT NULL
) WITHOUT ROWID;

-- Why a frame was refused, as a name that programs decide by; the reason beside it is for people.
ALTER TABLE frame ADD COLUMN cause TEXT;

-- Answers to posts that carried an Idempotency-Key, written with what they brought; a repeat gets the same answer.
CREATE TABLE inbox_answer (
  inlet_id  TEXT    NOT NULL,
  key       TEXT    NOT NULL,
  body_hash BLOB    NOT NULL,
  answer    TEXT    NOT NULL,
  at        INTEGER NOT NULL,
  PRIMARY KEY (inlet_id, key)
) WITHOUT ROWID;
CREATE INDEX inbox_answer_by_age ON inbox_answer (at);
