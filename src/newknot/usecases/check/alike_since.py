"""Who is alike still in the groups of alike secrets that lost one since the check."""

from collections.abc import Iterator, Mapping, Sequence
from functools import partial
from typing import NamedTuple

from newknot.core.audit.audited import AuditedLogin
from newknot.core.audit.changed_since import gone_since
from newknot.core.audit.reach import CordKind
from newknot.core.audit.similar import AlikeLeft, alike_left
from newknot.core.login import LoginCard
from newknot.store.checks import get_check
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.logins import get_secrets
from newknot.store.manifest import Label
from newknot.store.policies import list_policies
from newknot.store.vault import Vault
from newknot.usecases.check.audited import audited
from newknot.usecases.logins.logins import list_logins
from newknot.usecases.policies import NamedPolicies


class _Kept(NamedTuple):
    """What was found, and of what: when each login, and the policy of its site, was changed."""

    of: Sequence[object]
    left: AlikeLeft


def alike_since(vault: Vault) -> dict[tuple[str, ...], AlikeLeft]:
    """The logins of each such group, as the check found it -> what is alike of those left."""
    labels = (Label.LOGIN, Label.POLICY, Label.CHECK)
    kept = vault.renewed("alike since the check", labels, partial(_kept, vault))
    return {ids: one.left for ids, one in kept.items()}


def _kept(
    vault: Vault, former: dict[tuple[str, ...], _Kept] | None
) -> dict[tuple[str, ...], _Kept]:
    result = get_check(vault)
    if result is None:
        return {}
    cards = {card.login_id: card for card in list_logins(vault)[0]}
    policies = NamedPolicies(list_policies(vault))
    gone = gone_since(result, cards)
    found = {}
    for group in result.groups:
        if group.kind is not CordKind.SIMILAR or gone.isdisjoint(group.login_ids):
            continue
        # In the order in which the check takes them.
        ids = sorted(one for one in group.login_ids if one not in gone)
        named = [policies.of(cards[one].address) for one in ids]
        of = [
            (one, cards[one].changed_at, policy and (policy.policy_id, policy.changed_at))
            for one, policy in zip(ids, named, strict=True)
        ]
        before = (former or {}).get(group.login_ids)
        if before is None or before.of != of:
            before = _Kept(of, alike_left(_audited(vault, cards, policies, ids)))
        found[group.login_ids] = before
    return found


def _audited(
    vault: Vault, cards: Mapping[str, LoginCard], policies: NamedPolicies, ids: Sequence[str]
) -> Iterator[AuditedLogin]:
    for one in ids:
        try:
            held = get_secrets(vault, one)
        except (RecordDamaged, RecordMissing):
            continue
        yield audited(cards[one], held, policies.of(cards[one].address))
