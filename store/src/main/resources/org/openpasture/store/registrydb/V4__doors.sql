-- Tokens of programs: what they may do at most, on which places (ids with a space between, none for all), last used.
ALTER TABLE access_token ADD COLUMN scope TEXT NOT NULL DEFAULT 'manage';
ALTER TABLE access_token ADD COLUMN places TEXT NOT NULL DEFAULT '';
ALTER TABLE access_token ADD COLUMN used_at INTEGER;

-- The address that a change was made from, and the token that made it.
ALTER TABLE trail ADD COLUMN source TEXT NOT NULL DEFAULT '';
CREATE INDEX trail_by_entity ON trail (entity_id);

-- Answers to requests that carried an Idempotency-Key; the answer is sealed, since it may hold a token.
CREATE TABLE answered (
  person_id   TEXT    NOT NULL,
  key         TEXT    NOT NULL,
  fingerprint TEXT    NOT NULL,
  begun_at    INTEGER NOT NULL,
  status      INTEGER,
  location    TEXT,
  sealed      BLOB,
  PRIMARY KEY (person_id, key)
) WITHOUT ROWID;
CREATE INDEX answered_by_time ON answered (begun_at);
