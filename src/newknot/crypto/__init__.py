"""Keys and seals: the only importer of argon2 and cryptography, small enough for one review."""

from newknot.crypto.errors import KeyParametersRefused, SealBroken
from newknot.crypto.fingerprint import fingerprint, fingerprints
from newknot.crypto.kdf import INTERACTIVE, KdfParameters, derive_key
from newknot.crypto.keys import VaultKeys, new_vault_key
from newknot.crypto.seal import ReadyKey, associated_data, open_sealed, ready_key, seal
from newknot.crypto.slot import Slot, SlotDamaged, WrongPassphrase, make_slot, open_slot, whole

__all__ = [
    "INTERACTIVE",
    "KdfParameters",
    "KeyParametersRefused",
    "ReadyKey",
    "SealBroken",
    "Slot",
    "SlotDamaged",
    "VaultKeys",
    "WrongPassphrase",
    "associated_data",
    "derive_key",
    "fingerprint",
    "fingerprints",
    "make_slot",
    "new_vault_key",
    "open_sealed",
    "open_slot",
    "ready_key",
    "seal",
    "whole",
]
