"""The safeguards that the account holder sets, each with its state."""

from dataclasses import dataclass, field
from datetime import datetime
from enum import StrEnum

from newknot.core.errors import FieldInvalid


class Act(StrEnum):
    """Acts before which a proof of presence may be asked."""

    REVEAL = "reveal"
    COPY = "copy"
    EDIT = "edit"
    DELETE = "delete"
    CHECK = "check"
    EXPORT = "export"


class ProofRule(StrEnum):
    """When the vault passphrase is asked again before an act."""

    UNLOCK = "unlock"
    MINUTES = "minutes"
    EACH = "each"


def _default_rules() -> dict[Act, ProofRule]:
    rules = dict.fromkeys(Act, ProofRule.UNLOCK)
    rules[Act.DELETE] = rules[Act.EXPORT] = ProofRule.EACH
    return rules


@dataclass(frozen=True, slots=True)
class Safeguards:
    """lock_after_s: idle seconds; clipboard_clear_s: 0 is off; proof_minutes: for MINUTES.

    range_address, feed_address: services outside, asked only where their `_used` is set.
    """

    lock_after_s: int = 600
    clipboard_clear_s: int = 30
    reveal_allowed: bool = True
    proof_minutes: int = 5
    proof_before: dict[Act, ProofRule] = field(default_factory=_default_rules)
    corpus_used: bool = True
    range_address: str = ""
    range_used: bool = False
    feed_address: str = ""
    feed_used: bool = False
    last_backup_at: datetime | None = None

    def __post_init__(self) -> None:
        for name, least, most in (
            ("lock_after_s", 30, 8 * 3600),
            ("clipboard_clear_s", 0, 3600),
            ("proof_minutes", 1, 240),
        ):
            if not least <= getattr(self, name) <= most:
                raise FieldInvalid(name, f"is not between {least:,} and {most:,}")
        if set(self.proof_before) != set(Act):
            raise FieldInvalid("proof_before", "does not name each act once")
