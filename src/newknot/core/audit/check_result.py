"""What one whole check found, and short summaries of those before it."""

from dataclasses import dataclass
from datetime import date, datetime

from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.audit.reach import Group


@dataclass(frozen=True, slots=True)
class CheckSummary:
    """When a check ran, and how many findings of each kind it had."""

    checked_at: datetime
    counts: dict[str, int]


@dataclass(frozen=True, slots=True)
class CheckResult:
    """checked_count logins; corpus fields None where no corpus was asked; unread: damaged ones.

    guess_numbers: login id -> guess_number_log10 of its secret. groups: the logins that share or
    resemble a secret. former: kinds and logins of the check before; None where it was the first.
    """

    checked_at: datetime
    checked_count: int
    unread: tuple[str, ...]
    corpus_name: str | None
    corpus_dated_on: date | None
    corpus_count: int | None
    findings: tuple[Finding, ...]
    guess_numbers: dict[str, float]
    groups: tuple[Group, ...]
    former: frozenset[tuple[FindingKind, str]] | None
    earlier: tuple[CheckSummary, ...]

    @property
    def changes(self) -> tuple[int, int] | None:
        """(findings that the check before did not have, findings that it had and this has not)."""
        if self.former is None:
            return None
        now = {(f.kind, f.login_id) for f in self.findings}
        return len(now - self.former), len(self.former - now)
