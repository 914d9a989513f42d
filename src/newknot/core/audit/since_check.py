"""What a check found, as it stands now: a new secret settles what is of the secret; what rests on a
login's card is asked of the card anew; what ties logins holds for those whose secret is still the
one that was compared.
"""

from collections.abc import Callable, Collection, Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import date, datetime
from functools import reduce
from operator import is_

from newknot.core.audit.changed_since import changed_since, gone_since, guesses_of, other_policies
from newknot.core.audit.check_result import CheckResult
from newknot.core.audit.finding import KINDS, Finding, FindingKind, parts_of, together
from newknot.core.audit.names_since import Names
from newknot.core.audit.of_card import found_of_card
from newknot.core.audit.off_policy import off_policy_of
from newknot.core.audit.similar import AlikeLeft
from newknot.core.audit.ties_left import TIES, Ties
from newknot.core.calendar_day import day_of
from newknot.core.login import LoginCard, LoginSecrets
from newknot.core.policy import NamedPolicy

_OF_CARD = frozenset((FindingKind.NO_SECOND_FACTOR, FindingKind.OVERDUE, FindingKind.PLAIN_HTTP))
_ASKED = _OF_CARD | {FindingKind.LIKE_PASSPHRASE, FindingKind.OFF_POLICY}
"""What may be said otherwise though no secret is another."""


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


def since_check(
    result: CheckResult,
    cards: Mapping[str, LoginCard],
    *,
    policies: Collection[NamedPolicy],
    policy_of: Callable[[str], NamedPolicy | None],
    secrets_of: Callable[[str], LoginSecrets | None],
    likeness_of: Callable[[LoginSecrets], str],
    alike: Mapping[tuple[str, ...], AlikeLeft],
    passphrase_since: datetime | None,
    today: date,
) -> SinceCheck:
    """What stands of a check. cards: by login id; policies: of all sites; policy_of: that of an
    address; secrets_of: a login's, None where they cannot be read; likeness_of: how they resemble
    a passphrase of the vault; alike: of the groups of alike secrets that lost a member, by their
    logins, what is alike still; passphrase_since: from when its present one is.
    """
    is_passphrase_new = passphrase_since is not None and passphrase_since > result.checked_at
    gone = gone_since(result, cards)
    # Who shares a further field still does so when the login's own secret is another.
    of_fields = (f for f in result.findings if f.field_name or f.parts)
    by_field = {f.login_id for f in of_fields if f.kind in TIES}
    ties = Ties(result, cards, gone - (by_field & cards.keys()), alike)
    changed = changed_since(result, cards, gone)
    untouched = cards.keys() - changed - ties.touched
    names = Names(result, cards, changed)
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
            is_alone = finding.kind in TIES and ties.is_alone(card.login_id)
            return names.current(finding) if is_held and not is_alone else None
        if finding.kind is FindingKind.OFF_POLICY:
            return off_policy_now(card, finding)
        if KINDS[finding.kind].by_new_secret and card.login_id in gone:
            return None
        if finding.kind in TIES:
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
