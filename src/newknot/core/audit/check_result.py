"""What one whole check found, and short summaries of those before it."""

from dataclasses import dataclass, field
from datetime import date, datetime

from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.audit.reach import Group
from newknot.core.audit.worklist import Need


@dataclass(frozen=True, slots=True)
class CheckSummary:
    """When a check ran, and how many findings of each kind it had."""

    checked_at: datetime
    counts: dict[str, int]


@dataclass(frozen=True, slots=True)
class ListAsked:
    """A breach corpus as it was asked: name, date and size as it states them, if it did.

    unchecked_count: secrets it could not be asked about, None for all; reason: why. sent_count:
    prefixes that left this machine for it.
    """

    name: str
    dated_on: date | None
    unique_count: int | None
    unchecked_count: int | None = 0
    reason: str = ""
    sent_count: int = 0


@dataclass(frozen=True, slots=True)
class CheckResult:
    """checked_count logins; asked: the corpora, none where none was; unread: damaged logins;
    unmeasured: those whose secret could not be measured.

    guess_numbers: login id -> guess_number_log10 of its secret. groups: the logins that share or
    resemble a secret. former: kinds and logins of the check before; None where it was the first.
    first_found: by login id, when a check first found what a new secret settles. secrets_since: by
    login id, since when the secret was in use that was checked; empty in those of earlier programs.
    policies_since: by policy id, when each site policy was last changed that was checked by; None
    in those of earlier programs. met: needs of the checks before that are met, with the login and
    when it was changed, for some days. titles: by login id, of those that a group ties, as findings
    name them; logins_changed_at: by login id, when each was last changed that was checked; both
    empty in those of earlier programs.
    """

    checked_at: datetime
    checked_count: int
    unread: tuple[str, ...]
    asked: tuple[ListAsked, ...]
    findings: tuple[Finding, ...]
    guess_numbers: dict[str, float]
    groups: tuple[Group, ...]
    former: frozenset[tuple[FindingKind, str]] | None
    earlier: tuple[CheckSummary, ...]
    first_found: dict[str, datetime]
    unmeasured: tuple[str, ...] = ()
    secrets_since: dict[str, datetime] = field(default_factory=dict)
    policies_since: dict[str, datetime] | None = None
    met: tuple[tuple[Need, str, datetime], ...] = ()
    titles: dict[str, str] = field(default_factory=dict)
    logins_changed_at: dict[str, datetime] = field(default_factory=dict)

    @property
    def changes(self) -> tuple[int, int] | None:
        """(findings that the check before did not have, findings that it had and this has not)."""
        if self.former is None:
            return None
        now = {(f.kind, f.login_id) for f in self.findings}
        return len(now - self.former), len(self.former - now)
