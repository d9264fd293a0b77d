-- The list of events is read backwards in time.
CREATE INDEX alert_step_by_time ON alert_step (at);
CREATE INDEX alert_note_by_time ON alert_note (at);
CREATE INDEX notice_by_time ON notice (created_at);
CREATE INDEX trail_by_time ON trail (at);
