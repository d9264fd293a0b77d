-- Pictures of places, cleaned and scaled; what is marked on them is registered with the place.
CREATE TABLE picture (
  place_id TEXT PRIMARY KEY,
  digest   TEXT NOT NULL,
  type     TEXT NOT NULL,
  content  BLOB NOT NULL
);
