"""What an audit remembers of what has not changed, so that the next one asks only anew."""

from collections.abc import Callable, Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from operator import attrgetter

from newknot.core.audit.audited import Measured
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.audit.importance import Importances
from newknot.core.audit.order import Place, place_of, placed
from newknot.core.audit.overdue import overdue
from newknot.core.audit.similar import Likenesses
from newknot.core.breach.six_bytes import CorpusTitle
from newknot.core.login import Importance


@dataclass(slots=True)
class Seen:
    """A login as it was measured, what rests on it alone, and what corpora said of its secret.

    hits: by corpus, a lower bound of how often it holds the secret, and how often what the site
    keeps of it; without those that failed. fields: the further secret fields of the login.
    rounded_log10: its guess number as it is kept for showing.
    """

    measured: Measured
    own: tuple[Finding, ...]
    hits: dict[CorpusTitle, tuple[int, int]] = field(default_factory=dict)
    fields: "tuple[Seen, ...]" = ()
    rounded_log10: float | None = field(init=False)
    _overdue: tuple[date, tuple[Finding, ...]] = (date.min, ())

    def __post_init__(self) -> None:
        guesses = self.measured.guess_number_log10
        self.rounded_log10 = None if guesses is None else round(guesses, 2)

    def overdue_on(self, today: date) -> tuple[Finding, ...]:
        """That its day is over, asked once a day."""
        if self._overdue[0] != today:
            self._overdue = (today, tuple(overdue((self.measured,), today)))
        return self._overdue[1]


@dataclass(slots=True)
class _Group:
    members: tuple[Measured, ...]
    findings: tuple[Finding, ...]


@dataclass(slots=True)
class _Placed:
    given: Finding
    by: tuple[Importance, str, int]
    found: Finding
    place: Place


class AuditMemory:
    """Logins, groups and places of the audit before. In memory alone, gone at the lock."""

    def __init__(self) -> None:
        self.clear()

    def clear(self) -> None:
        """Forgets everything."""
        self.seen: dict[str, Seen] = {}
        self.likenesses = Likenesses()
        self._importances = Importances()
        self._groups: dict[tuple[FindingKind, str], _Group] = {}
        self._placed: dict[tuple[FindingKind, str], _Placed] = {}

    def of_group(
        self,
        kind: FindingKind,
        members: Sequence[Measured],
        find: Callable[[], Iterable[Finding]],
    ) -> tuple[Finding, ...]:
        """What was found of a group, or is found now where any member is another."""
        key = (kind, members[0].login.login_id)
        held = self._groups.get(key)
        if held is None or not _same(held.members, members):
            held = self._groups[key] = _Group(tuple(members), tuple(find()))
        return held.findings

    def in_order(
        self, findings: Iterable[Finding], counts: Mapping[str, int], mailboxes: Collection[str]
    ) -> list[Finding]:
        """The findings with their places, by their places. counts: how many others fall with a
        login; mailboxes: logins that reset others.
        """
        placed: list[_Placed] = []
        for finding in findings:
            one = finding.login_id
            login = self.seen[one].measured.login
            weighed = self._importances.of(login, resets_others=one in mailboxes)
            placed.append(self._place(finding, weighed, counts.get(one, 0)))
        placed.sort(key=attrgetter("place"))
        return [one.found for one in placed]

    def _place(self, finding: Finding, weighed: tuple[Importance, str], reach: int) -> _Placed:
        """`placed`, asked once for each finding, importance and reach."""
        key, by = (finding.kind, finding.login_id), (*weighed, reach)
        held = self._placed.get(key)
        # What is found anew each time is the same as long as it says the same.
        if held is None or held.by != by or (held.given is not finding and held.given != finding):
            importance, guess = weighed
            found = placed(finding, importance, guess=guess, reach=reach)
            held = self._placed[key] = _Placed(finding, by, found, place_of(found))
        return held

    def keep_only(self, login_ids: set[str]) -> None:
        """Forgets logins that are no longer there."""
        gone = self.seen.keys() - login_ids
        if not gone:
            return
        for one in gone:
            del self.seen[one]
        for held in (self._groups, self._placed):
            for key in [key for key in held if key[1] not in login_ids]:
                del held[key]


def _same(one: Sequence[Measured], other: Sequence[Measured]) -> bool:
    return len(one) == len(other) and all(a is b for a, b in zip(one, other, strict=True))
