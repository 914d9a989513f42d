"""A finding: one thing to do about one login, and the sentence it rests on."""

from dataclasses import dataclass, field, replace
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
    by; why: its place in the order, in a sentence. field_name: the further secret field that it is
    of, empty where it is of the login itself or of several secrets; field_id: of the value that the
    field had. parts: where several secrets of the login are at fault, what is found of each.
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
    field_name: str = ""
    field_id: str = ""
    parts: "tuple[Finding, ...]" = ()


def parts_of(finding: Finding) -> tuple[Finding, ...]:
    """What is found of each secret."""
    return finding.parts or (finding,)


def wants_field(finding: Finding) -> bool:
    """Whether a further secret field is to be changed, which no new secret of the login settles."""
    return any(part.field_name for part in parts_of(finding))


def wants_secret(finding: Finding) -> bool:
    """Whether a new secret of the login settles it, or what of it is of that secret."""
    if not KINDS[finding.kind].by_new_secret:
        return False
    if finding.parts:
        return any(not part.field_name for part in finding.parts)
    return not finding.field_name


def together(one: Finding, other: Finding) -> Finding:
    """Two findings of a kind for a login as one."""
    numbers = [f.guess_number_log10 for f in (one, other) if f.guess_number_log10 is not None]
    is_same = one.said_once == other.said_once
    head = one.evidence.removesuffix(f": {one.said_once}") if is_same else one.evidence
    is_parted = wants_field(one) or wants_field(other)
    return replace(
        one,
        evidence=f"{head}; {other.evidence}",
        said_once=other.said_once,
        others=tuple(dict.fromkeys((*one.others, *other.others)))[:50],
        guess_number_log10=min(numbers, default=None),
        basis="; ".join(b for b in (one.basis, other.basis) if b),
        field_name="",
        field_id="",
        parts=(*parts_of(one), *parts_of(other)) if is_parted else (),
    )
