"""What a check found, as it stands now: a new secret settles what is of the secret; what rests on a
login's card is asked of the card anew; what ties logins holds for those whose secret is still the
one that was compared.
"""

import re
from collections.abc import Callable, Collection, Iterable, Iterator, Mapping
from dataclasses import dataclass, replace
from datetime import date, datetime
from functools import reduce
from operator import is_

from newknot.core.audit.check_result import CheckResult
from newknot.core.audit.finding import KINDS, Finding, FindingKind, parts_of, together
from newknot.core.audit.no_second_factor import no_second_factor_of
from newknot.core.audit.off_policy import off_policy_of
from newknot.core.audit.overdue import overdue_of
from newknot.core.audit.plain_http import plain_http_of
from newknot.core.audit.reach import CordKind, Group
from newknot.core.calendar_day import day_of
from newknot.core.login import LoginCard, LoginSecrets
from newknot.core.policy import NamedPolicy
from newknot.core.rotation.due import own_day

_OF_CARD = frozenset((FindingKind.NO_SECOND_FACTOR, FindingKind.OVERDUE, FindingKind.PLAIN_HTTP))
_ASKED = _OF_CARD | {FindingKind.LIKE_PASSPHRASE, FindingKind.OFF_POLICY}
"""What may be said otherwise though no secret is another."""
_TIES = {FindingKind.REUSED: CordKind.SAME, FindingKind.SIMILAR: CordKind.SIMILAR}
_NAMED_MOST = 50
_LOOKED_AT = 3
"""Of those with one secret the first ones are named."""
_MORE = r"(?: and \d+ others?)?"


@dataclass(frozen=True, slots=True)
class SinceCheck:
    """standing: what is as it was found, in its order; unplaced: what is to be said otherwise, or
    came up by a login's card, without a place in the order yet. changed: logins that are other than
    they were checked, or came after; gone: those whose secret that was checked is not theirs any
    more, and those that went away.
    """

    standing: tuple[Finding, ...]
    unplaced: tuple[Finding, ...]
    changed: frozenset[str]
    gone: frozenset[str]


def is_since(card: LoginCard, result: CheckResult) -> bool:
    """Whether the login's secret is another than the one that was checked.

    What is brought in, merged or taken back may be in use since before the check.
    """
    seen = result.secrets_since.get(card.login_id)
    if seen is None:
        return card.secret_since_at > result.checked_at
    return card.secret_since_at != seen


def guesses_of(card: LoginCard, result: CheckResult) -> float | None:
    """The guess number of the login's secret, where the check saw that secret; base-10 log."""
    return None if is_since(card, result) else result.guess_numbers.get(card.login_id)


def groups_left(result: CheckResult, cards: Mapping[str, LoginCard]) -> tuple[Group, ...]:
    """The check's groups without what was renewed or went away; cards: by login id."""
    return tuple(_groups_left(result.groups, _gone(result, cards)))


def _groups_left(groups: Iterable[Group], gone: frozenset[str]) -> Iterator[Group]:
    for group in groups:
        left = group
        if not gone.isdisjoint(group.login_ids):
            left = Group(group.kind, tuple(o for o in group.login_ids if o not in gone))
        if len(left.login_ids) > 1:
            yield left


def _gone(result: CheckResult, cards: Mapping[str, LoginCard]) -> frozenset[str]:
    """Logins whose secret that was checked is not theirs any more, and those that went away."""
    seen = result.secrets_since
    # Of ten thousand, each is looked at but once.
    other = {one for one, at in seen.items() if one in cards and cards[one].secret_since_at != at}
    other.update(one for one in cards.keys() - seen.keys() if is_since(cards[one], result))
    checked = seen.keys() if seen else {one for group in result.groups for one in group.login_ids}
    return frozenset(other | (checked - cards.keys()))


def other_policies(result: CheckResult, policies: Iterable[NamedPolicy]) -> set[str]:
    """The policies, by id, that are other than they were checked by, are new, or went away."""
    if result.policies_since is None:
        return {one.policy_id for one in policies if one.changed_at > result.checked_at}
    now = {one.policy_id: one.changed_at for one in policies}
    return {one for one, _ in now.items() ^ result.policies_since.items()}


def since_check(
    result: CheckResult,
    cards: Mapping[str, LoginCard],
    *,
    policies: Collection[NamedPolicy],
    policy_of: Callable[[str], NamedPolicy | None],
    secrets_of: Callable[[str], LoginSecrets | None],
    likeness_of: Callable[[LoginSecrets], str],
    passphrase_since: datetime | None,
    today: date,
) -> SinceCheck:
    """What stands of a check. cards: by login id; policies: of all sites; policy_of: that of an
    address; secrets_of: a login's, None where they cannot be read; likeness_of: how they resemble
    a passphrase of the vault; passphrase_since: from when its present one is.
    """
    is_passphrase_new = passphrase_since is not None and passphrase_since > result.checked_at
    gone = _gone(result, cards)
    # Who shares a further field still does so when the login's own secret is another.
    of_fields = (f for f in result.findings if f.field_name or f.parts)
    by_field = {f.login_id for f in of_fields if f.kind in _TIES}
    ties = _Ties(result, cards, gone - (by_field & cards.keys()))
    changed = _changed(result, cards, gone)
    untouched = cards.keys() - changed - ties.touched
    names = _Names(result, cards, changed)
    ruled = changed | _ruled(cards, other_policies(result, policies), policy_of)
    of_card: dict[str, dict[FindingKind, Finding]] = {}

    def asked(card: LoginCard) -> dict[FindingKind, Finding]:
        if card.login_id not in of_card:
            found = found_of_card(card, policy_of(card.address), today)
            of_card[card.login_id] = {one.kind: one for one in found}
        return of_card[card.login_id]

    def now(finding: Finding, card: LoginCard) -> Finding | None:
        if finding.kind in _OF_CARD:
            anew = asked(card).pop(finding.kind, None)
            is_same = anew is not None and _said(anew) == _said(finding)
            return finding if is_same and card.login_id not in gone else anew
        parts = parts_of(finding)
        left = [held for part in parts if (held := of_part(part, card)) is not None]
        if len(left) == len(parts) and all(map(is_, left, parts)):
            return finding
        return reduce(together, left) if left else None

    def of_part(finding: Finding, card: LoginCard) -> Finding | None:
        if finding.field_name:
            held = secrets_of(card.login_id) if card.login_id in changed else None
            of_field = finding.field_name, finding.field_id
            is_held = held is None or of_field in ((f.name, f.secret_id) for f in held.fields)
            is_alone = finding.kind in _TIES and ties.is_alone(card.login_id)
            return names.current(finding) if is_held and not is_alone else None
        if finding.kind is FindingKind.OFF_POLICY:
            return off_policy_now(card, finding)
        if KINDS[finding.kind].by_new_secret and card.login_id in gone:
            return None
        if finding.kind in _TIES:
            return ties.left_of(names.current(finding))
        if finding.kind is FindingKind.LIKE_PASSPHRASE and is_passphrase_new:
            held = secrets_of(card.login_id)
            says = likeness_of(held) if held is not None else finding.evidence
            if not says:
                return None
            return finding if says == finding.evidence else replace(finding, evidence=says)
        return finding

    def off_policy_now(card: LoginCard, former: Finding | None) -> Finding | None:
        named = policy_of(card.address)
        if named is None or card.login_id not in ruled:
            return former if named is not None else None
        held = secrets_of(card.login_id)
        if held is None:
            return former if card.login_id not in gone else None
        guesses = guesses_of(card, result)
        anew = off_policy_of(
            card.login_id, held.secret, named.policy, site=named.name, guesses=guesses
        )
        is_same = anew is not None and former is not None and _said(anew) == _said(former)
        return former if is_same and card.login_id not in gone else anew

    standing: list[Finding] = []
    other: list[Finding] = []
    for finding in result.findings:
        # Of ten thousand most are as they were.
        is_asked = finding.kind in _ASKED or names.may_be_other(finding)
        if not is_asked and finding.login_id in untouched:
            standing.append(finding)
            continue
        card = cards.get(finding.login_id)
        held = now(finding, card) if card is not None else None
        if held is not None:
            (standing if held is finding else other).append(held)
    off_policy = {f.login_id for f in result.findings if f.kind is FindingKind.OFF_POLICY}
    for one in ruled | _by_day(result, cards, policies, policy_of, today):
        # Those that were found before are not among them any more.
        other += asked(cards[one]).values()
        anew = off_policy_now(cards[one], None) if one not in off_policy else None
        other += (anew,) if anew is not None else ()
    unplaced = (_measured(finding, cards[finding.login_id], result) for finding in other)
    return SinceCheck(tuple(standing), tuple(unplaced), changed, gone)


def _changed(
    result: CheckResult, cards: Mapping[str, LoginCard], gone: frozenset[str]
) -> frozenset[str]:
    at, seen = result.checked_at, result.logins_changed_at
    if seen:
        # What was brought in or merged since may be of any day.
        changed = {one for one, card in cards.items() if seen.get(one) != card.changed_at}
    else:
        changed = {one for one, card in cards.items() if card.changed_at > at}
        if result.secrets_since:
            changed |= cards.keys() - result.secrets_since.keys() - set(result.unread)
    return frozenset(changed | (gone & cards.keys()))


def _ruled(
    cards: Mapping[str, LoginCard],
    policies: Collection[str],
    policy_of: Callable[[str], NamedPolicy | None],
) -> set[str]:
    """The logins whose site has one of these policies, by their ids."""
    if not policies:
        return set()
    of = {one: policy_of(card.address) for one, card in cards.items()}
    return {one for one, named in of.items() if named and named.policy_id in policies}


def _by_day(
    result: CheckResult,
    cards: Mapping[str, LoginCard],
    policies: Iterable[NamedPolicy],
    policy_of: Callable[[str], NamedPolicy | None],
    today: date,
) -> set[str]:
    """The logins that may be overdue by now and were not when the check ran."""
    if today == day_of(result.checked_at):
        return set()
    aged = {one.policy_id for one in policies if one.policy.max_age_days is not None}
    own = {one for one, card in cards.items() if card.expires_on is not None}
    return own | _ruled(cards, aged, policy_of)


def _measured(finding: Finding, card: LoginCard, result: CheckResult) -> Finding:
    if finding.kind not in _OF_CARD:
        return finding
    return replace(finding, guess_number_log10=guesses_of(card, result))


def _said(finding: Finding) -> tuple[str, str]:
    return finding.evidence, finding.basis


def found_of_card(card: LoginCard, named: NamedPolicy | None, today: date) -> Iterator[Finding]:
    """What is found of a login's card alone; named: the policy of its site."""
    found = [plain_http_of(card.login_id, card.address, has_secret=card.has_secret)]
    if named is not None and named.offers_second_factor:
        found.append(no_second_factor_of(card.login_id, named.name, card.second_factor))
    if card.has_secret:
        at_most = named.policy.max_age_days if named is not None else None
        found.append(
            overdue_of(
                card.login_id,
                expires_on=own_day(card),
                since_at=card.secret_since_at,
                max_age_days=at_most,
                today=today,
            )
        )
    yield from (one for one in found if one is not None)


class _Names:
    """Logins that have another title than findings name them by."""

    def __init__(
        self, result: CheckResult, cards: Mapping[str, LoginCard], changed: Collection[str]
    ) -> None:
        self._then = result.titles
        self._now = {
            one: cards[one].title
            for one in changed
            if self._then.get(one, cards[one].title) != cards[one].title
        }

    def may_be_other(self, finding: Finding) -> bool:
        """Whether the finding may name one of them."""
        return not self._now.keys().isdisjoint(finding.others)

    def current(self, finding: Finding) -> Finding:
        """The finding with the title that the login has which it names."""
        if not self.may_be_other(finding):
            return finding
        said = finding.evidence
        begun = re.match(r"(?:“.*?”: )?(?:same as |like )(?:“.*?” of )?", said, re.IGNORECASE)
        head, rest = (said[: begun.end()], said[begun.end() :]) if begun else ("", said)
        others = (one for one in finding.others if one != finding.login_id)
        # Of titles of which one begins with another, the longer is meant; what is so still, stays.
        named = max(
            (one for one in others if _is_named(self._then.get(one), rest)),
            key=lambda one: (len(self._then[one]), one not in self._now),
            default="",
        )
        if named not in self._now:
            return finding
        then, now = self._then[named], self._now[named]
        rest = rest[len(then) :].replace(f", since {then}'s ", f", since {now}'s ")
        return replace(finding, evidence=f"{head}{now}{rest}")


def _is_named(title: str | None, rest: str) -> bool:
    if title is None or not rest.startswith(title):
        return False
    return re.match(rf"{_MORE}[,:]", rest[len(title) :]) is not None


class _Left:
    """What is left of a group: its logins in order, and from when the second had the secret."""

    def __init__(self, group: Group, cards: Mapping[str, LoginCard], gone: frozenset[str]) -> None:
        self.ids = tuple(one for one in group.login_ids if one not in gone)
        self.members = frozenset(self.ids)
        self.is_whole = len(self.ids) == len(group.login_ids)
        dates = sorted(cards[one].secret_since_at for one in self.ids)
        self.since = f"{day_of(dates[1]):%B %Y}" if len(dates) > 1 else ""


class _Ties:
    """What is left of the groups that the check found. touched: logins of those that lost one."""

    def __init__(
        self, result: CheckResult, cards: Mapping[str, LoginCard], gone: frozenset[str]
    ) -> None:
        self._cards = cards
        self._of: dict[tuple[CordKind, str], list[_Left]] = {}
        self.touched = set[str]()
        for group in result.groups:
            if not gone.isdisjoint(group.login_ids):
                self.touched.update(group.login_ids)
        for group in result.groups if self.touched else ():
            if not self.touched.isdisjoint(group.login_ids):
                left = _Left(group, cards, gone)
                for one in group.login_ids:
                    self._of.setdefault((group.kind, one), []).append(left)

    def is_alone(self, login_id: str) -> bool:
        """Whether no other is left of a group that it shares its secret with."""
        groups = self._of.get((CordKind.SAME, login_id), [])
        return bool(groups) and all(one.members <= {login_id} for one in groups)

    def left_of(self, finding: Finding) -> Finding | None:
        """The finding while another of its group is left; said of those that are."""
        me = finding.login_id
        groups = self._of.get((_TIES[finding.kind], me), [])
        if not groups:
            return finding
        same = frozenset((me,))
        if finding.kind is FindingKind.SIMILAR:
            # Those of one secret are not like each other, but the same.
            same = same.union(*(one.members for one in self._of.get((CordKind.SAME, me), [])))
        if all(one.members <= same for one in groups):
            return None
        if len(groups) > 1 or groups[0].is_whole:
            return finding
        left = groups[0]
        more = (len(left.members - same) if len(same) > 1 else len(left.ids) - 1) - 1
        ending = f" and {more} other{'s' if more > 1 else ''}" if more else ""
        if finding.kind is FindingKind.REUSED:
            return self._same_as(finding, left, ending)
        return self._like(finding, left, same, ending)

    def _same_as(self, finding: Finding, left: _Left, ending: str) -> Finding:
        """As `reused` says it; what is of a further field stays, for cards know nothing of it."""
        if not re.match("Same as (?!“)", finding.evidence):
            return finding
        others = [one for one in left.ids[:_LOOKED_AT] if one != finding.login_id]
        named, cut = self._named(finding.login_id, others[0]), ""
        for one in others:
            name = self._named(finding.login_id, one)
            rest = finding.evidence.removeprefix(f"Same as {name}")
            if said := re.fullmatch(rf"{_MORE}(|, since .*), since \w+ \d{{4}}", rest):
                named, cut = name, said[1]
                break
        evidence = f"Same as {named}{ending}{cut}, since {left.since}"
        return replace(finding, evidence=evidence, others=left.ids[:_NAMED_MOST])

    def _named(self, login_id: str, other: str) -> str:
        """How another login is named beside this one."""
        card = self._cards[other]
        is_alike = card.title == self._cards[login_id].title
        return f"{card.title}, {card.user_name}" if is_alike else card.title

    def _like(self, finding: Finding, left: _Left, same: frozenset[str], ending: str) -> Finding:
        """As `similar` says it; where the nearest is gone, that it is."""
        named = [one for one in finding.others if one in left.members and one not in same]
        for one in named:
            title = self._cards[one].title
            rest = finding.evidence.removeprefix(f"Like {title}")
            if said := re.fullmatch(rf"{_MORE}(: .*)", rest):
                evidence = f"Like {title}{ending}{said[1]}"
                break
        else:
            other = next(one for one in (*named, *left.ids) if one not in same)
            title = self._cards[other].title
            evidence = f"Found alike with {title}{ending}; the nearest of them is renewed or gone"
        return replace(finding, evidence=evidence, others=tuple(named))
