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


class CorpusOut(Shape):
    """A corpus that is loaded."""

    name: str
    dated_on: date
    unique_count: int


class SafeguardsOut(SafeguardsIn):
    """With what the server adds: the corpus, the last backup, where the vault lies."""

    last_backup_at: datetime | None
    corpus: CorpusOut | None
    vault_path: str
    backup_folder: str
