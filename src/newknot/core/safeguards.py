"""The safeguards that the account holder sets, each with its state."""

from dataclasses import dataclass, field, replace
from datetime import datetime
from enum import StrEnum

from newknot.core.errors import FieldInvalid
from newknot.core.keeping_rule import KeepingRule
from newknot.core.rotation.retention import KEEP_DAYS_MOST

KEPT_OUT_MOST = 2_000


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

    range_address, feed_address, mail_address: services outside, asked only where their `_used` is
    set. history_keep_days: how long earlier secrets are kept before they may be let go; 0 is for
    ever. kept_out: domains for which nothing is offered to be saved. backup_every_h: hours between
    backups; 0 is off. backup_place: the folder for them; empty for the one beside the vault.
    first_hour_over: the list of first steps was dismissed.
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
    mail_address: str = ""
    mail_used: bool = False
    history_keep_days: int = 0
    kept_out: tuple[str, ...] = ()
    backup_every_h: int = 24
    backup_place: str = ""
    keeping: KeepingRule = KeepingRule()  # noqa: RUF009 - immutable
    last_backup_at: datetime | None = None
    first_hour_over: bool = False

    def __post_init__(self) -> None:
        for name, least, most in (
            ("lock_after_s", 30, 8 * 3600),
            ("clipboard_clear_s", 0, 3600),
            ("proof_minutes", 1, 240),
            ("history_keep_days", 0, KEEP_DAYS_MOST),
            ("backup_every_h", 0, 24 * 366),
        ):
            if not least <= getattr(self, name) <= most:
                raise FieldInvalid(name, f"is not between {least:,} and {most:,}")
        if set(self.proof_before) != set(Act):
            raise FieldInvalid("proof_before", "does not name each act once")
        if len(self.kept_out) > KEPT_OUT_MOST:
            raise FieldInvalid("kept_out", f"are more than {KEPT_OUT_MOST:,}")

    def with_place(self, domain: str, *, kept_out: bool) -> "Safeguards":
        """With a place kept out, or no longer."""
        others = tuple(one for one in self.kept_out if one != domain)
        return replace(self, kept_out=tuple(sorted((*others, domain))) if kept_out else others)
