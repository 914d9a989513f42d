"""The worklist: what the last check left to do, and what came up since without one."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from newknot.core.audit import Finding, FindingKind
from newknot.core.audit.check_result import CheckResult
from newknot.core.audit.importance import importance_of
from newknot.core.audit.notice import noticed
from newknot.core.audit.order import in_order, placed
from newknot.core.audit.reach import Reach
from newknot.core.login import Importance, LoginCard
from newknot.core.loose_end import LooseEnd
from newknot.core.rotation.change_mail import unexplained
from newknot.store.checks import get_check
from newknot.store.loose_ends import list_loose_ends
from newknot.store.mails import get_mails
from newknot.store.notices import get_notices
from newknot.store.rotations import list_rotations
from newknot.store.safeguards import get_safeguards
from newknot.store.vault import Vault
from newknot.usecases.check.checks import current_findings, renewal
from newknot.usecases.check.reach import cords
from newknot.usecases.check.waivers import open_and_waived
from newknot.usecases.logins.logins import list_logins


@dataclass(frozen=True, slots=True)
class ToDo:
    """The worklist. result None: never checked. findings: gravest first; those of a loose end carry
    its id as login id. renewed, renewable: logins settled by a new secret, of all found so far.
    """

    result: CheckResult | None
    findings: tuple[Finding, ...]
    waived: tuple[Finding, ...]
    cards: dict[str, LoginCard]
    loose_ends: dict[str, LooseEnd]
    renewed_count: int
    renewable_count: int


def work_to_do(vault: Vault, *, now: datetime) -> ToDo:
    """The findings that still stand and are not accepted."""
    result = get_check(vault)
    cards, _ = list_logins(vault)
    standing = current_findings(result, cards)[0] if result is not None else []
    standing += came_up(vault, cards)
    standing += [_parted(card) for card in cards if card.parted_at is not None]
    to_do, waived = open_and_waived(vault, standing, cards, now=now)
    loose_ends = list_loose_ends(vault)
    renewed, renewable = renewal(result, cards) if result is not None else (0, 0)
    return ToDo(
        result,
        tuple(in_order([*to_do, *map(_loose, loose_ends)])),
        tuple(waived),
        {card.login_id: card for card in cards},
        {one.loose_end_id: one for one in loose_ends},
        renewed,
        renewable,
    )


def came_up(vault: Vault, cards: Sequence[LoginCard]) -> list[Finding]:
    """What notices and mails at hand say of the logins as they are; nothing of a service that is
    not used.
    """
    safeguards = get_safeguards(vault)
    notices = get_notices(vault) if safeguards.feed_used else None
    mails = get_mails(vault) if safeguards.mail_used else None
    found = list(noticed(cards, notices.notices)) if notices is not None else []
    if mails is not None:
        found += unexplained(cards, list_rotations(vault), mails.mails)
    if not found:
        return []
    groups, links = cords(vault)
    counts = Reach(groups, links).counts()
    mailboxes = {link.by for link in links}
    by_id = {card.login_id: card for card in cards}
    said: list[Finding] = []
    for finding in found:
        card = by_id[finding.login_id]
        importance, guess = importance_of(card, resets_others=card.login_id in mailboxes)
        reach = counts.get(card.login_id, 0)
        said.append(placed(finding, importance, guess=guess, reach=reach))
    return said


def _loose(one: LooseEnd) -> Finding:
    where = f" for {one.address}" if one.address else ""
    finding = Finding(
        FindingKind.UNFINISHED,
        one.loose_end_id,
        f"A secret of {one.length} characters was handed out on {one.handed_out_at:%-d %B}{where} "
        "and belongs to no login yet",
    )
    return placed(finding, Importance.NORMAL, guess="", reach=0)


def _parted(card: LoginCard) -> Finding:
    finding = Finding(
        FindingKind.UNFINISHED,
        card.login_id,
        "Changed in two copies of the vault: the newer secret is current, the other is in the "
        "history. Sign in to see which one holds",
    )
    return placed(finding, card.importance, guess="", reach=0)
