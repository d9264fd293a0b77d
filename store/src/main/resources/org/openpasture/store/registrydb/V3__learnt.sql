-- When we learnt that an alert was due; null where nobody noted it, which is when it was raised.
ALTER TABLE alert ADD COLUMN learnt_at INTEGER;
