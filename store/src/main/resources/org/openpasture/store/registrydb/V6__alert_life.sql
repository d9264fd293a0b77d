-- Who has an alert, and whether its rule is set aside: until when (none for out of service), by whom, why.
ALTER TABLE alert ADD COLUMN assigned_to TEXT;
ALTER TABLE alert ADD COLUMN shelved_until INTEGER;
ALTER TABLE alert ADD COLUMN shelved_by TEXT;
ALTER TABLE alert ADD COLUMN shelved_reason TEXT;

-- What happened to an alert, with the value at that moment. The same step is kept once, however often it is repeated.
CREATE TABLE alert_step (
  id       INTEGER PRIMARY KEY AUTOINCREMENT,
  alert_id TEXT    NOT NULL,
  at       INTEGER NOT NULL,
  kind     TEXT    NOT NULL,
  severity TEXT,
  value    DOUBLE,
  person   TEXT    NOT NULL DEFAULT '',
  text     TEXT    NOT NULL DEFAULT '',
  UNIQUE (alert_id, at, kind)
);

-- What is known of the alerts from before.
INSERT INTO alert_step (alert_id, at, kind, severity, value, text)
  SELECT id, raised_at, 'raised', severity, trigger_value, limit_text FROM alert;
INSERT INTO alert_step (alert_id, at, kind, person)
  SELECT id, acknowledged_at, 'acknowledged', coalesce(acknowledged_by, '') FROM alert WHERE acknowledged_at IS NOT NULL;
INSERT INTO alert_step (alert_id, at, kind, value)
  SELECT id, returned_at, 'returned', return_value FROM alert WHERE returned_at IS NOT NULL;
INSERT INTO alert_step (alert_id, at, kind)
  SELECT id, closed_at, 'closed' FROM alert WHERE closed_at IS NOT NULL;
