-- Ciphertext, random ids and integers only: what a record is stands inside its seal.
CREATE TABLE vault (
  singleton INTEGER PRIMARY KEY CHECK (singleton = 1),
  vault_id BLOB NOT NULL CHECK (length(vault_id) = 16)
) STRICT;
CREATE TABLE slots (
  slot_copy INTEGER PRIMARY KEY CHECK (slot_copy IN (1, 2)),
  argon2_version INTEGER NOT NULL,
  passes INTEGER NOT NULL,
  memory_kib INTEGER NOT NULL,
  lanes INTEGER NOT NULL,
  salt BLOB NOT NULL,
  sealed_key BLOB NOT NULL,
  checksum BLOB NOT NULL
) STRICT;
CREATE TABLE records (
  record_id BLOB NOT NULL CHECK (length(record_id) = 16),
  part INTEGER NOT NULL,
  revision INTEGER NOT NULL,
  sealed BLOB NOT NULL,
  PRIMARY KEY (record_id, part)
) STRICT;
CREATE TABLE manifest (
  bucket INTEGER PRIMARY KEY,
  revision INTEGER NOT NULL,
  sealed BLOB NOT NULL
) STRICT;
CREATE TABLE head (
  singleton INTEGER PRIMARY KEY CHECK (singleton = 1),
  revision INTEGER NOT NULL,
  sealed BLOB NOT NULL
) STRICT;
