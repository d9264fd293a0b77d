-- What waits to be passed on, in order, until the outside has taken it.
CREATE TABLE outlet_item (
  id         INTEGER PRIMARY KEY AUTOINCREMENT,
  outlet_id  TEXT    NOT NULL,
  kind       TEXT    NOT NULL,
  topic      TEXT    NOT NULL,
  body       TEXT    NOT NULL,
  created_at INTEGER NOT NULL
);
CREATE INDEX outlet_item_by_outlet ON outlet_item (outlet_id, id);

-- The row of the journal up to which readings were looked at for outlets.
CREATE TABLE outlet_position (
  id          INTEGER PRIMARY KEY CHECK (id = 1),
  journal_seq INTEGER NOT NULL
);
