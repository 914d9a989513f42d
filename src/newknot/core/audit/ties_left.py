"""What is left of the groups of one secret, and of alike ones, that a check found."""

import re
from collections.abc import Mapping
from dataclasses import replace

from newknot.core.audit.check_result import CheckResult
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.audit.names_since import MORE
from newknot.core.audit.reach import CordKind, Group
from newknot.core.audit.similar import AlikeLeft
from newknot.core.calendar_day import day_of
from newknot.core.login import LoginCard

TIES = frozenset((FindingKind.REUSED, FindingKind.SIMILAR))
_NAMED_MOST = 50
_LOOKED_AT = 3
"""Of those with one secret the first ones are named."""


class _Left:
    """What is left of a group: its logins in order, and from when the second had the secret."""

    def __init__(self, group: Group, cards: Mapping[str, LoginCard], gone: frozenset[str]) -> None:
        self.ids = tuple(one for one in group.login_ids if one not in gone)
        self.members = frozenset(self.ids)
        self.is_whole = len(self.ids) == len(group.login_ids)
        dates = sorted(cards[one].secret_since_at for one in self.ids)
        self.since = f"{day_of(dates[1]):%B %Y}" if len(dates) > 1 else ""


class Ties:
    """What is left of the groups that the check found. touched: logins of those that lost one.
    alike: of those of alike secrets, by their logins, what is alike still.
    """

    def __init__(
        self,
        result: CheckResult,
        cards: Mapping[str, LoginCard],
        gone: frozenset[str],
        alike: Mapping[tuple[str, ...], AlikeLeft],
    ) -> None:
        self._cards = cards
        self._alike_left = {one: left for ids, left in alike.items() for one in ids}
        self._of: dict[str, list[_Left]] = {}
        self.touched = {*self._alike_left}
        same = [group for group in result.groups if group.kind is CordKind.SAME]
        for group in same:
            if not gone.isdisjoint(group.login_ids):
                self.touched.update(group.login_ids)
        for group in same if self.touched else ():
            if not self.touched.isdisjoint(group.login_ids):
                left = _Left(group, cards, gone)
                for one in group.login_ids:
                    self._of.setdefault(one, []).append(left)

    def is_alone(self, login_id: str) -> bool:
        """Whether no other is left of a group that it shares its secret with."""
        groups = self._of.get(login_id, [])
        return bool(groups) and all(one.members <= {login_id} for one in groups)

    def left_of(self, finding: Finding) -> Finding | None:
        """The finding while another of its group is left; said of those that are."""
        me = finding.login_id
        if finding.kind is FindingKind.SIMILAR:
            return self._alike(finding) if me in self._alike_left else finding
        groups = self._of.get(me, [])
        if not groups:
            return finding
        if all(one.members <= {me} for one in groups):
            return None
        if len(groups) > 1 or groups[0].is_whole:
            return finding
        left = groups[0]
        more = len(left.ids) - 2
        ending = f" and {more} other{'s' if more > 1 else ''}" if more else ""
        return self._same_as(finding, left, ending)

    def _alike(self, finding: Finding) -> Finding | None:
        """As a check of those that are left says it; None where it is like none of them."""
        anew = self._alike_left[finding.login_id].findings.get(finding.login_id)
        if anew is None or (anew.evidence, anew.others) == (finding.evidence, finding.others):
            return finding if anew is not None else None
        return replace(finding, evidence=anew.evidence, others=anew.others)

    def _same_as(self, finding: Finding, left: _Left, ending: str) -> Finding:
        """As `reused` says it; what is of a further field stays, for cards know nothing of it."""
        if not re.match("Same as (?!“)", finding.evidence):
            return finding
        others = [one for one in left.ids[:_LOOKED_AT] if one != finding.login_id]
        named, cut = self._named(finding.login_id, others[0]), ""
        for one in others:
            name = self._named(finding.login_id, one)
            rest = finding.evidence.removeprefix(f"Same as {name}")
            if said := re.fullmatch(rf"{MORE}(|, since .*), since \w+ \d{{4}}", rest):
                named, cut = name, said[1]
                break
        evidence = f"Same as {named}{ending}{cut}, since {left.since}"
        return replace(finding, evidence=evidence, others=left.ids[:_NAMED_MOST])

    def _named(self, login_id: str, other: str) -> str:
        """How another login is named beside this one."""
        card = self._cards[other]
        is_alike = card.title == self._cards[login_id].title
        return f"{card.title}, {card.user_name}" if is_alike else card.title
