-- What is behind several alerts at once, such as "gateway 02ab54fffe10a001"; empty for what stands for itself.
ALTER TABLE alert ADD COLUMN cause TEXT NOT NULL DEFAULT '';
CREATE INDEX alert_by_cause ON alert (cause) WHERE cause <> '' AND closed_at IS NULL;
