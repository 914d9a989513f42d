"""What is other than a check saw it: secrets, logins, groups, policies."""

from collections.abc import Iterable, Iterator, Mapping

from newknot.core.audit.check_result import CheckResult
from newknot.core.audit.reach import CordKind, Group
from newknot.core.audit.similar import AlikeLeft
from newknot.core.login import LoginCard
from newknot.core.policy import NamedPolicy


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


def groups_left(
    result: CheckResult,
    cards: Mapping[str, LoginCard],
    alike: Mapping[tuple[str, ...], AlikeLeft],
) -> tuple[Group, ...]:
    """The check's groups without what was renewed or went away; cards: by login id; alike: of the
    groups of alike secrets that lost a member, what is alike still.
    """
    return tuple(_groups_left(result.groups, gone_since(result, cards), alike))


def _groups_left(
    groups: Iterable[Group], gone: frozenset[str], alike: Mapping[tuple[str, ...], AlikeLeft]
) -> Iterator[Group]:
    for group in groups:
        if group.kind is CordKind.SIMILAR and group.login_ids in alike:
            yield from (Group(group.kind, ids) for ids in alike[group.login_ids].groups)
            continue
        left = group
        if not gone.isdisjoint(group.login_ids):
            left = Group(group.kind, tuple(o for o in group.login_ids if o not in gone))
        if len(left.login_ids) > 1:
            yield left


def gone_since(result: CheckResult, cards: Mapping[str, LoginCard]) -> frozenset[str]:
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


def changed_since(
    result: CheckResult, cards: Mapping[str, LoginCard], gone: frozenset[str]
) -> frozenset[str]:
    """Logins that are other than they were checked, or came after; gone: as `gone_since` says."""
    at, seen = result.checked_at, result.logins_changed_at
    if seen:
        # What was brought in or merged since may be of any day.
        changed = {one for one, card in cards.items() if seen.get(one) != card.changed_at}
    else:
        changed = {one for one, card in cards.items() if card.changed_at > at}
        if result.secrets_since:
            changed |= cards.keys() - result.secrets_since.keys() - set(result.unread)
    return frozenset(changed | (gone & cards.keys()))
