-- The list of events is read backwards in time.
CREATE INDEX command_by_time ON command (wanted_at);
CREATE INDEX correction_by_time ON correction (at);
