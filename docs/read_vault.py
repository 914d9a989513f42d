#!/usr/bin/env python3
"""Opens a vault file of New Knot with its passphrase and prints everything in it as JSON.

It stands alone: this file, `cryptography` and `argon2-cffi` are all that is needed. It follows
docs/vault-format.md. It only reads, and prints secrets in the clear: mind where its output goes.

    python read_vault.py FILE            asks for the passphrase, or takes it from standard input
    python read_vault.py FILE --recovery the recovery key (64 hexadecimal digits) instead
"""

import getpass
import json
import sqlite3
import struct
import sys
import unicodedata
from hashlib import blake2b
from pathlib import Path

from argon2.low_level import Type, hash_secret_raw
from cryptography.exceptions import InvalidTag
from cryptography.hazmat.primitives.ciphers.aead import AESGCM
from cryptography.hazmat.primitives.hashes import SHA256
from cryptography.hazmat.primitives.kdf.hkdf import HKDF

FORMAT = "newknot vault 1"
LABELS = {
    **{1: "SETTINGS", 2: "LOGIN", 3: "POLICY", 4: "ROTATION", 5: "LOOSE_END", 6: "CHECK"},
    **{7: "OWN_DETAILS", 8: "KEPT_MEASURES", 9: "PASSPHRASES", 10: "WAIVER", 11: "NOTICES"},
    **{12: "CAMPAIGN", 13: "MAILS", 14: "RECOVERY", 15: "REMOVED", 16: "TAKEN_OUT"},
    **{17: "BUNDLE_KEY", 18: "IMPORT_UNDO"},
}
COLUMNS = "SELECT argon2_version, passes, memory_kib, lanes, salt, sealed_key, checksum FROM "
SLOTS = {
    "passphrase": COLUMNS + "slots ORDER BY slot_copy",
    "recovery": COLUMNS + "recovery_slots ORDER BY slot_copy",
}
PARTS = {1: "card", 2: "secrets", 3: "history"}


def bound(*parts):
    """Associated data: each part with its length before it; integers are 8 bytes."""
    out = b""
    for part in parts:
        raw = part.to_bytes(8, "big") if isinstance(part, int) else part
        raw = raw.encode("utf-8") if isinstance(raw, str) else raw
        out += len(raw).to_bytes(4, "big") + raw
    return out


def opened(key, sealed, data):
    """The text of a seal: nonce (12), ciphertext, tag (16); inside length (4), text, padding."""
    body = AESGCM(key).decrypt(sealed[:12], sealed[12:], data)
    return body[4 : 4 + int.from_bytes(body[:4], "big")]


def vault_key(connection, vault_id, text, table):
    """The key in the first slot copy whose checksum fits, under the passphrase or recovery key."""
    rows = connection.execute(SLOTS[table]).fetchall()
    for version, passes, memory_kib, lanes, salt, sealed, checksum in rows:
        data = bound("newknot slot 1", vault_id, version, passes, memory_kib, lanes, salt)
        if blake2b(data + sealed, digest_size=16).digest() != checksum:
            continue
        key = hash_secret_raw(
            unicodedata.normalize("NFC", text).encode("utf-8"),
            salt,
            time_cost=passes,
            memory_cost=memory_kib,
            parallelism=lanes,
            hash_len=32,
            type=Type.ID,
            version=version,
        )
        try:
            return opened(key, sealed, data)
        except InvalidTag:
            sys.exit("That does not open this vault.")
    sys.exit("No copy of the key slot is whole.")


def read(path, text, table="passphrase"):
    """Every record, by kind and id, with what of it could not be opened."""
    connection = sqlite3.connect(f"{Path(path).resolve().as_uri()}?mode=ro", uri=True)
    vault_id = bytes(connection.execute("SELECT vault_id FROM vault").fetchone()[0])
    root = vault_key(connection, vault_id, text, table)

    def derived(info):
        return HKDF(algorithm=SHA256(), length=32, salt=vault_id, info=info).derive(root)

    records, manifest = derived(b"newknot records 1"), derived(b"newknot manifest 1")
    revision, sealed = connection.execute("SELECT revision, sealed FROM head").fetchone()
    head = opened(manifest, sealed, bound(FORMAT, vault_id, "head", 0, 0, revision))
    marks = list(struct.Struct(">Q16s").iter_unpack(head[8:]))
    found, faults = {}, []
    for number, revision, sealed in connection.execute(
        "SELECT bucket, revision, sealed FROM manifest ORDER BY bucket"
    ):
        if (revision, sealed[-16:]) != marks[number]:
            faults.append(f"bucket {number} of the manifest is not the one that the head names")
        data = bound(FORMAT, vault_id, "bucket", number, 0, revision)
        entries = struct.Struct(">16sHHQ16s").iter_unpack(opened(manifest, sealed, data))
        for record_id, label, part, revision, tag in entries:
            kind, where = LABELS.get(label, str(label)), PARTS.get(part, str(part))
            row = connection.execute(
                "SELECT revision, sealed FROM records WHERE record_id = ? AND part = ?",
                (record_id, part),
            ).fetchone()
            data = bound(FORMAT, vault_id, kind, record_id, part, revision)
            try:
                if row is None or (row[0], row[1][-16:]) != (revision, tag):
                    raise InvalidTag
                text = json.loads(opened(records, row[1], data))
            except (InvalidTag, ValueError):
                faults.append(f"{kind} {record_id.hex()}, {where}, is damaged")
                continue
            found.setdefault(kind, {}).setdefault(record_id.hex(), {})[where] = text
    return {"vault_id": vault_id.hex(), "records": found, "faults": faults}


if __name__ == "__main__":
    if len(sys.argv) < 2:
        sys.exit(__doc__)
    kind = "recovery" if "--recovery" in sys.argv else "passphrase"
    given = getpass.getpass(f"{kind}: ") if sys.stdin.isatty() else sys.stdin.readline()
    json.dump(read(sys.argv[1], given.rstrip("\n"), kind), sys.stdout, ensure_ascii=False, indent=1)
