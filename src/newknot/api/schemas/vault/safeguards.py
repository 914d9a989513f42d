"""Shapes of the safeguards."""

from datetime import date, datetime

from newknot.api.schemas.base import Shape, Whole
from newknot.core.safeguards import Act, ProofRule


class SafeguardsIn(Shape):
    """What the user sets."""

    lock_after_s: Whole
    clipboard_clear_s: Whole
    reveal_allowed: bool
    proof_minutes: Whole
    proof_before: dict[Act, ProofRule]
    corpus_used: bool
    range_address: str
    range_used: bool
    feed_address: str
    feed_used: bool
    mail_address: str
    mail_used: bool
    history_keep_days: Whole
    kept_out: list[str]
    backup_every_h: Whole
    backup_place: str
    backup_daily: Whole
    backup_weekly: Whole
    backup_monthly: Whole
    revision: str | None = None
    """That which was seen: with it, what was changed meanwhile is not saved over."""


class CorpusOut(Shape):
    """A corpus that is open; reason: why one that is there cannot be used, and then no more."""

    file_name: str
    name: str
    dated_on: date | None
    unique_count: int | None
    reason: str


class Verified(Shape):
    """Whether every byte of a corpus was read and is as written; false where it was stopped."""

    is_whole: bool


class SafeguardsOut(SafeguardsIn):
    """With what the server adds: the corpora, the last backup, where the vault lies."""

    revision: str
    last_backup_at: datetime | None
    corpora: list[CorpusOut]
    vault_path: str
    backup_folder: str
    backup_problem: str
    backup_problem_data: dict[str, object]
