-- What people changed in the record, with what was there before, so that it can be undone.
CREATE TABLE correction (
  id        INTEGER PRIMARY KEY,
  at        INTEGER NOT NULL,
  person    TEXT    NOT NULL,
  note      TEXT    NOT NULL,
  undone_at INTEGER,
  undone_by TEXT
);

CREATE TABLE correction_part (
  correction INTEGER NOT NULL REFERENCES correction (id),
  point      INTEGER NOT NULL,
  from_time  INTEGER NOT NULL,
  until_time INTEGER NOT NULL,
  before     BLOB,
  after      BLOB,
  PRIMARY KEY (correction, point)
);
