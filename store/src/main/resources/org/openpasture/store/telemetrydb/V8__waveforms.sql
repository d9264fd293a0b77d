-- Waveforms of points, packed. What is asked for lists stands beside them, so that lists read no samples.
CREATE TABLE waveform (
  id       INTEGER PRIMARY KEY,
  point    INTEGER NOT NULL,
  time     INTEGER NOT NULL,
  samples  INTEGER NOT NULL,
  rate     DOUBLE  NOT NULL,
  bytes    INTEGER NOT NULL,
  packed   BLOB    NOT NULL
);
CREATE UNIQUE INDEX waveform_by_point ON waveform (point, time);
