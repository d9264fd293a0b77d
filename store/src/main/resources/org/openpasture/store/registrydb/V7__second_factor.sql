-- The second factor of a person: its sealed secret, whether it has been confirmed, the last time step that was used (a
-- code works once), and the hashes of the recovery codes that are left.
ALTER TABLE credential ADD COLUMN totp BLOB;
ALTER TABLE credential ADD COLUMN totp_confirmed INTEGER NOT NULL DEFAULT 0;
ALTER TABLE credential ADD COLUMN totp_step INTEGER NOT NULL DEFAULT 0;
ALTER TABLE credential ADD COLUMN recovery_codes TEXT NOT NULL DEFAULT '';

-- Links for a forgotten password that were sent by mail and not used yet.
CREATE TABLE password_reset (
  token_hash TEXT    PRIMARY KEY,
  person_id  TEXT    NOT NULL,
  expires_at INTEGER NOT NULL
) WITHOUT ROWID;
