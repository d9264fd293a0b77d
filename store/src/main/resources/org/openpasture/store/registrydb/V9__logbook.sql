-- What people wrote about places and points. What is removed stays for a while, so that it can be brought back.
CREATE TABLE logbook_entry (
  id          INTEGER PRIMARY KEY AUTOINCREMENT,
  place_id    TEXT    NOT NULL,
  point_id    TEXT,
  answers     INTEGER,
  at          INTEGER NOT NULL,
  text        TEXT    NOT NULL,
  person_id   TEXT    NOT NULL,
  person_name TEXT    NOT NULL,
  written_at  INTEGER NOT NULL,
  changed_at  INTEGER,
  removed_at  INTEGER
);
CREATE INDEX logbook_entry_at ON logbook_entry (at, id);
