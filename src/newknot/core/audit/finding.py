"""A finding: one thing to do about one login, and the sentence it rests on."""

from dataclasses import dataclass
from enum import StrEnum


class FindingKind(StrEnum):
    """The kinds, gravest first: the order of work follows this order."""

    BREACHED = "breached"
    UNEXPLAINED_CHANGE = "unexplained_change"
    NOTICE = "notice"
    LIKE_PASSPHRASE = "like_passphrase"  # noqa: S105
    WEAK = "weak"
    REUSED = "reused"
    SIMILAR = "similar"
    UNFINISHED = "unfinished"
    OFF_POLICY = "off_policy"
    NO_SECOND_FACTOR = "no_second_factor"
    OVERDUE = "overdue"
    PLAIN_HTTP = "plain_http"


@dataclass(frozen=True, slots=True)
class Finding:
    """kind, the login, evidence (one sentence without any secret), logins it ties together.

    reach: how many other logins fall if this one does; urgency: what it is ordered by; why: its
    place in the order, in a sentence.
    """

    kind: FindingKind
    login_id: str
    evidence: str
    others: tuple[str, ...] = ()
    guess_number_log10: float | None = None
    reach: int = 0
    urgency: float = 0.0
    why: str = ""
