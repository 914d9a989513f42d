"""A waiver: one kind of finding on one login, accepted for a reason, on that day's evidence."""

import re
from dataclasses import dataclass
from datetime import date, datetime
from enum import StrEnum

from newknot.core.audit.finding import KINDS, Finding, FindingKind

AN_ORDER = 1.0
"""Of the base-10 logarithm of guesses."""
NAMED_MOST = 50
"""Findings name so many other logins; of a larger group the evidence alone tells its size."""


class WaiverReason(StrEnum):
    """Why a finding is accepted."""

    CANNOT = "cannot"
    NOT_MINE = "not_mine"
    COVERED = "covered"
    DOES_NOT_MATTER = "does_not_matter"


@dataclass(frozen=True, slots=True)
class Waiver:
    """until_on: the last day it holds, None for as long as its evidence does. lifted_at: when it
    was taken back. evidence, others, basis, guess_number_log10: those of the finding on the day it
    was given.
    """

    waiver_id: str
    login_id: str
    kind: FindingKind
    reason: WaiverReason
    note: str
    given_at: datetime
    until_on: date | None
    evidence: str
    others: frozenset[str]
    lifted_at: datetime | None = None
    basis: str = ""
    guess_number_log10: float | None = None

    def holds(self, today: date) -> bool:
        """Whether it was not taken back and its day is not past."""
        return self.lifted_at is None and (self.until_on is None or today <= self.until_on)

    def covers(self, finding: Finding, *, secret_since_at: datetime, today: date) -> bool:
        """Whether the finding rests on what was accepted: the same kind on the same login and on
        the same basis, no login more in its group, no later breach; where it is of the secret, the
        same one, whose guess number did not fall by an order.
        """
        if (finding.kind, finding.login_id) != (self.kind, self.login_id):
            return False
        if not self.holds(today) or (self.basis and finding.basis != self.basis):
            return False
        if KINDS[self.kind].by_new_secret:
            before, guesses = self.guess_number_log10, finding.guess_number_log10
            fell = before is not None and guesses is not None and guesses < before - AN_ORDER
            if fell or secret_since_at > self.given_at:
                return False
        if KINDS[self.kind].by_evidence:
            return finding.evidence == self.evidence
        if max(len(self.others), len(finding.others)) >= NAMED_MOST:
            return _size(finding.evidence) <= _size(self.evidence)
        return self.others.issuperset(finding.others)


def _size(evidence: str) -> int:
    """How many others there are beside the one that is named."""
    return max((int(said) for said in re.findall(r" and (\d+) others?\b", evidence)), default=0)
