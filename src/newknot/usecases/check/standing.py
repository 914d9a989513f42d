"""What stands to be done now: of the last check, and of all that came up since without one.

The worklist, waivers, a login's sheet and the report all ask here.
"""

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from functools import partial

from newknot.core.audit import AuditedRotation, Finding, FindingKind
from newknot.core.audit.changed_since import guesses_of, other_policies
from newknot.core.audit.check_result import CheckResult
from newknot.core.audit.importance import MAILBOX, importance_of
from newknot.core.audit.notice import noticed
from newknot.core.audit.of_card import found_of_card
from newknot.core.audit.order import in_order, placed
from newknot.core.audit.reach import Reach
from newknot.core.audit.since_check import SinceCheck, since_check
from newknot.core.audit.unfinished import unfinished
from newknot.core.audit.waiver import Waiver
from newknot.core.calendar_day import day_of
from newknot.core.login import Importance, LoginCard, LoginSecrets
from newknot.core.loose_end import LooseEnd
from newknot.core.policy import NamedPolicy
from newknot.core.rotation import OPEN_STATES, Rotation
from newknot.core.rotation.change_mail import unexplained
from newknot.store.checks import get_check
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.logins import get_secrets
from newknot.store.loose_ends import list_loose_ends
from newknot.store.mails import get_mails
from newknot.store.notices import get_notices
from newknot.store.passphrases import get_passphrases
from newknot.store.policies import list_policies
from newknot.store.rotations import list_rotations
from newknot.store.safeguards import get_safeguards
from newknot.store.vault import Vault
from newknot.store.waivers import list_waivers
from newknot.usecases.check.alike_since import alike_since
from newknot.usecases.check.checks import renewal
from newknot.usecases.check.reach import cords
from newknot.usecases.logins.logins import list_logins
from newknot.usecases.policies import NamedPolicies
from newknot.usecases.vault.vault_passphrase import passphrase_likeness


@dataclass(frozen=True, slots=True)
class Standing:
    """result None: never checked. to_do, accepted (by a waiver): gravest first; one of a loose end
    carries its id as login id. changed_count: logins that are other than they were checked;
    policies_changed: site policies that are. renewal: as `renewal` counts it.
    """

    result: CheckResult | None
    cards: dict[str, LoginCard]
    loose_ends: dict[str, LooseEnd]
    to_do: tuple[Finding, ...]
    accepted: tuple[Finding, ...]
    changed_count: int
    policies_changed: int
    renewal: tuple[int, int]


def standing(vault: Vault, *, now: datetime) -> Standing:
    """Everything that stands to be done at this moment."""
    result = get_check(vault)
    cards, _ = list_logins(vault)
    by_id = {card.login_id: card for card in cards}
    loose_ends = list_loose_ends(vault)
    policies = list_policies(vault)
    checked = _checked(vault, result, by_id, policies, today=day_of(now))
    # Rotations are asked as they are now.
    found = [one for one in checked.standing if one.kind is not FindingKind.UNFINISHED]
    came_up = [*checked.unplaced, *_came_up(vault, result, by_id)]
    # What the check found is in its order, and is put in order again where that is another.
    if came_up or checked.changed or checked.gone:
        places = _Places(vault, by_id)
        moved = (places.of(f) if places.has_moved(f, checked.changed) else f for f in found)
        found = in_order([*moved, *map(places.of, came_up)])
    to_do, accepted = _by_waivers(vault, found, cards, now=now)
    return Standing(
        result,
        by_id,
        {one.loose_end_id: one for one in loose_ends},
        tuple(in_order([*to_do, *map(_loose, loose_ends)]) if loose_ends else to_do),
        tuple(accepted),
        len(checked.changed),
        len(other_policies(result, policies)) if result is not None else 0,
        renewal(result, cards) if result is not None else (0, 0),
    )


def came_up_before(vault: Vault, cards: Sequence[LoginCard], today: date) -> set[str]:
    """Those of these logins, as they were, against which a notice, a mail or their day stood."""
    if not cards:
        return set()
    policies = NamedPolicies(list_policies(vault))
    of_cards = (f for c in cards for f in found_of_card(c, policies.of(c.address), today))
    overdue = (finding for finding in of_cards if finding.kind is FindingKind.OVERDUE)
    told = _told_from_outside(vault, cards, list_rotations(vault))
    return {finding.login_id for finding in (*told, *overdue)}


def _told_from_outside(
    vault: Vault, cards: Sequence[LoginCard], rotations: Sequence[Rotation]
) -> Iterator[Finding]:
    """What notices and mails tell; nothing of a service that is not used."""
    safeguards = get_safeguards(vault)
    notices = get_notices(vault) if safeguards.feed_used else None
    mails = get_mails(vault) if safeguards.mail_used else None
    yield from noticed(cards, notices.notices) if notices is not None else ()
    yield from unexplained(cards, rotations, mails.mails) if mails is not None else ()


def _checked(
    vault: Vault,
    result: CheckResult | None,
    cards: Mapping[str, LoginCard],
    policies: Sequence[NamedPolicy],
    *,
    today: date,
) -> SinceCheck:
    if result is None:
        return SinceCheck((), (), frozenset(), frozenset())
    passphrases = get_passphrases(vault)
    return since_check(
        result,
        cards,
        policies=policies,
        policy_of=NamedPolicies(policies).of,
        secrets_of=partial(_secrets_of, vault),
        likeness_of=lambda held: passphrase_likeness(vault, held.secret, passphrases),
        alike=alike_since(vault),
        passphrase_since=passphrases[-1].since_at if passphrases else None,
        today=today,
    )


def _secrets_of(vault: Vault, login_id: str) -> LoginSecrets | None:
    try:
        return get_secrets(vault, login_id)
    except (RecordDamaged, RecordMissing):
        return None


def _came_up(
    vault: Vault, result: CheckResult | None, cards: Mapping[str, LoginCard]
) -> list[Finding]:
    """What notices, mails, rotations and merges say of the logins as they are."""
    rotations = list_rotations(vault)
    open_ones = [r for r in rotations if r.state in OPEN_STATES]
    rotated = [cards[r.login_id] for r in open_ones if r.login_id in cards]
    every = list(cards.values())
    return [
        *_told_from_outside(vault, every, rotations),
        *unfinished(
            {
                card.login_id: guesses_of(card, result) if result is not None else None
                for card in rotated
            },
            [
                AuditedRotation(r.login_id, r.state.value, r.changed_at, r.rotation_id)
                for r in open_ones
            ],
        ),
        *(_parted(card) for card in every if card.parted_at is not None or card.texts_apart),
    ]


class _Places:
    """The places of findings among all others, by logins and cords as they are now."""

    def __init__(self, vault: Vault, cards: Mapping[str, LoginCard]) -> None:
        self._cards = cards
        groups, links = cords(vault)
        self._counts = Reach(groups, links).counts()
        self._mailboxes = {link.by for link in links}

    def of(self, finding: Finding) -> Finding:
        """The finding with its place."""
        one = finding.login_id
        importance, guess = importance_of(self._cards[one], resets_others=one in self._mailboxes)
        return placed(finding, importance, guess=guess, reach=self._counts.get(one, 0))

    def has_moved(self, finding: Finding, changed: Collection[str]) -> bool:
        """Whether the place that a check gave it may be another by now."""
        one = finding.login_id
        if one in changed or self._counts.get(one, 0) != finding.reach:
            return True
        return (one in self._mailboxes) != (MAILBOX in finding.why)


def _by_waivers(
    vault: Vault, findings: Sequence[Finding], cards: Sequence[LoginCard], *, now: datetime
) -> tuple[list[Finding], list[Finding]]:
    """(those to do, those that a waiver covers)."""
    waivers: dict[tuple[FindingKind, str], list[Waiver]] = {}
    for waiver in list_waivers(vault):
        waivers.setdefault((waiver.kind, waiver.login_id), []).append(waiver)
    since = {card.login_id: card.secret_since_at for card in cards} if waivers else {}
    today = day_of(now)
    to_do: list[Finding] = []
    accepted: list[Finding] = []
    for finding in findings:
        given = waivers.get((finding.kind, finding.login_id))
        covered = given is not None and any(
            w.covers(finding, secret_since_at=since[finding.login_id], today=today) for w in given
        )
        (accepted if covered else to_do).append(finding)
    return to_do, accepted


def _loose(one: LooseEnd) -> Finding:
    where = f" for {one.address}" if one.address else ""
    on = f"{day_of(one.handed_out_at):%-d %B}"
    finding = Finding(
        FindingKind.UNFINISHED,
        one.loose_end_id,
        f"A secret of {one.length} characters was handed out on {on}{where} "
        "and belongs to no login yet",
    )
    return placed(finding, Importance.NORMAL, guess="", reach=0)


def _parted(card: LoginCard) -> Finding:
    says = []
    if card.parted_at is not None:
        says.append(
            "the newer secret is current, the other is in the history. Sign in to see which one "
            "holds"
        )
    if card.texts_apart:
        names = ", ".join(name.replace("_", " ") for name in card.texts_apart)
        says.append(f"of {names} both texts are kept. Choose which one is to stand")
    return Finding(
        FindingKind.UNFINISHED,
        card.login_id,
        f"Changed in two copies of the vault: {'; '.join(says)}",
    )
