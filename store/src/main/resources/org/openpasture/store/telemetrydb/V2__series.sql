-- The journal's numbers are given by the one writer and go on after rows are gone, so AUTOINCREMENT's own table is not needed.
CREATE TABLE journal_next (
  seq        INTEGER PRIMARY KEY,
  written_at INTEGER NOT NULL,
  events     BLOB    NOT NULL
);
INSERT INTO journal_next (seq, written_at, events) SELECT seq, written_at, events FROM journal;
DROP TABLE journal;
ALTER TABLE journal_next RENAME TO journal;

-- Up to which journal row all readings are in chunks.
CREATE TABLE sealed (
  id          INTEGER PRIMARY KEY CHECK (id = 1),
  journal_seq INTEGER NOT NULL
);

-- Some hundred readings of one point each (see ChunkCodec). Chunks of a point do not overlap. Rows are in the order of sealing, so
-- that what is old lies together and its pages fall free together.
CREATE TABLE chunk (
  id         INTEGER PRIMARY KEY,
  point      INTEGER NOT NULL,
  first_time INTEGER NOT NULL,
  last_time  INTEGER NOT NULL,
  readings   INTEGER NOT NULL,
  packed     BLOB    NOT NULL
);
CREATE UNIQUE INDEX chunk_by_point ON chunk (point, first_time);

-- Some dozen summaries of one point each (see SummaryCodec); width is the seconds of an hour, or those of a usual day for days of the
-- site's calendar.
CREATE TABLE summary_block (
  id          INTEGER PRIMARY KEY,
  point       INTEGER NOT NULL,
  width       INTEGER NOT NULL,
  first_start INTEGER NOT NULL,
  last_start  INTEGER NOT NULL,
  summaries   INTEGER NOT NULL,
  packed      BLOB    NOT NULL
);
CREATE UNIQUE INDEX summary_block_by_point ON summary_block (point, width, first_start);

-- What is kept of a point: how much, its newest reading, and from when on full detail and hours are still there.
CREATE TABLE point_record (
  point         INTEGER PRIMARY KEY,
  readings      INTEGER NOT NULL,
  chunk_bytes   INTEGER NOT NULL,
  summary_bytes INTEGER NOT NULL,
  last_time     INTEGER NOT NULL,
  last_value    DOUBLE  NOT NULL,
  last_quality  INTEGER NOT NULL,
  detail_from   INTEGER NOT NULL,
  hours_from    INTEGER NOT NULL
);

-- Values that another value for the same moment took the place of.
CREATE TABLE replaced_reading (
  point       INTEGER NOT NULL,
  time        INTEGER NOT NULL,
  value       DOUBLE  NOT NULL,
  quality     INTEGER NOT NULL,
  replaced_by DOUBLE  NOT NULL,
  noticed_at  INTEGER NOT NULL,
  PRIMARY KEY (point, time, value, replaced_by)
) WITHOUT ROWID;

-- How much came in, by hour; what the forecast is made from.
CREATE TABLE intake (
  hour        INTEGER PRIMARY KEY,
  readings    INTEGER NOT NULL,
  frames      INTEGER NOT NULL,
  frame_bytes INTEGER NOT NULL
);
