-- A second way to the vault key: a slot under the recovery key, kept twice like the first.
CREATE TABLE recovery_slots (
  slot_copy INTEGER PRIMARY KEY CHECK (slot_copy IN (1, 2)),
  argon2_version INTEGER NOT NULL,
  passes INTEGER NOT NULL,
  memory_kib INTEGER NOT NULL,
  lanes INTEGER NOT NULL,
  salt BLOB NOT NULL,
  sealed_key BLOB NOT NULL,
  checksum BLOB NOT NULL
) STRICT;
