"""A finding: one thing to do about one login, and the sentence it rests on."""

from dataclasses import dataclass, field
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
class KindFacts:
    """weight: in the order of work. title, to_do: in a report. by_new_secret: whether one settles
    it. by_evidence: whether its evidence changes only when what it rests on does.
    """

    weight: float
    title: str
    to_do: str
    by_new_secret: bool = True
    by_evidence: bool = False


_K = FindingKind
KINDS = {
    _K.BREACHED: KindFacts(
        100.0, "Breached", "Change it now, here and wherever else it is used.", by_evidence=True
    ),
    _K.UNEXPLAINED_CHANGE: KindFacts(
        90.0,
        "Unexplained change",
        "Sign in and see: if it was not you, take the account back and change it.",
        by_evidence=True,
    ),
    _K.NOTICE: KindFacts(
        80.0, "Breach notice", "Change it: it is older than the breach.", by_evidence=True
    ),
    _K.LIKE_PASSPHRASE: KindFacts(60.0, "Like the vault's passphrase", "Change it to a drawn one."),
    _K.WEAK: KindFacts(30.0, "Weak", "Change it to a drawn one, as long as the site takes."),
    _K.REUSED: KindFacts(24.0, "Reused", "Change it so that each login has its own."),
    _K.SIMILAR: KindFacts(10.0, "Similar", "Change it to one that is made of nothing else."),
    _K.UNFINISHED: KindFacts(
        20.0,
        "Unfinished",
        "Finish the change that was begun.",
        by_new_secret=False,
        by_evidence=True,
    ),
    _K.OFF_POLICY: KindFacts(
        6.0, "Off policy", "Change it to what the site asks for, or would take.", by_evidence=True
    ),
    _K.NO_SECOND_FACTOR: KindFacts(
        5.5, "No second factor", "Set one up at the site.", by_new_secret=False
    ),
    _K.OVERDUE: KindFacts(5.0, "Overdue", "Change it: its day is past."),
    _K.PLAIN_HTTP: KindFacts(
        4.0,
        "Address without https",
        "Use the https address, if the site has one.",
        by_new_secret=False,
        by_evidence=True,
    ),
}
"""What is to be known of each kind, for the order, the report, waivers and progress alike."""


@dataclass(frozen=True, slots=True)
class Finding:
    """kind, the login, evidence (one sentence without any secret), logins it ties together.

    said_once: the evidence's end behind a colon, where several secrets of a login may share it.
    basis: what it rests on where its evidence alone does not tell it: a day, a number of days,
    which rotation. reach: how many other logins fall if this one does; urgency: what it is ordered
    by; why: its place in the order, in a sentence.
    """

    kind: FindingKind
    login_id: str
    evidence: str
    others: tuple[str, ...] = ()
    guess_number_log10: float | None = None
    reach: int = 0
    urgency: float = 0.0
    why: str = ""
    basis: str = ""
    said_once: str = field(default="", compare=False)
