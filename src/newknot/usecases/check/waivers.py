"""Waivers: given on findings of the last check, taken back, and what they leave of a worklist."""

from collections.abc import Sequence
from dataclasses import replace
from datetime import date, datetime

from newknot.core.audit import Finding, FindingKind
from newknot.core.audit.notice import noticed
from newknot.core.audit.waiver import Waiver, WaiverReason
from newknot.core.errors import FieldInvalid
from newknot.core.login import LoginCard, checked_text
from newknot.store.notices import get_notices
from newknot.store.vault import Vault, new_id
from newknot.store.waivers import get_waiver, list_waivers, put_waiver
from newknot.usecases.check.checks import current_findings, get_check
from newknot.usecases.errors import FindingUnknown
from newknot.usecases.logins.logins import list_logins

__all__ = ["give_waivers", "lift_waivers", "list_waivers", "open_and_waived"]


def give_waivers(
    vault: Vault,
    accepted: Sequence[tuple[FindingKind, str]],
    *,
    reason: WaiverReason,
    note: str,
    until_on: date | None,
    now: datetime,
) -> list[Waiver]:
    """One waiver for each (kind, login id), on the evidence of the last check.

    Raises `FieldInvalid`, and `FindingUnknown` where the last check has no such finding standing.
    """
    text = checked_text(note, field="note")
    if until_on is not None and until_on < now.date():
        raise FieldInvalid("until_on", "is past already")
    result = get_check(vault)
    cards, _ = list_logins(vault)
    standing = current_findings(result, cards)[0] if result is not None else []
    standing += noticed(cards, held.notices) if (held := get_notices(vault)) is not None else ()
    by_key = {(f.kind, f.login_id): f for f in standing}
    waivers = []
    for kind, login_id in accepted:
        finding = by_key.get((kind, login_id))
        if finding is None:
            raise FindingUnknown()
        waivers.append(
            Waiver(
                waiver_id=new_id(),
                login_id=login_id,
                kind=kind,
                reason=reason,
                note=text,
                given_at=now,
                until_on=until_on,
                evidence=finding.evidence,
                others=frozenset(finding.others),
            )
        )
    with vault.transaction() as tx:
        for waiver in waivers:
            put_waiver(tx, waiver)
    return waivers


def lift_waivers(vault: Vault, waiver_ids: Sequence[str], *, now: datetime) -> None:
    """Takes waivers back, all or none; they stay as history. Raises `RecordMissing`."""
    with vault.transaction() as tx:
        for waiver_id in waiver_ids:
            held = get_waiver(vault, waiver_id)
            if held.lifted_at is None:
                put_waiver(tx, replace(held, lifted_at=now))


def open_and_waived(
    vault: Vault, findings: Sequence[Finding], cards: Sequence[LoginCard], *, now: datetime
) -> tuple[list[Finding], list[Finding]]:
    """(those to do, those that a waiver covers)."""
    waivers: dict[tuple[FindingKind, str], list[Waiver]] = {}
    for waiver in list_waivers(vault):
        waivers.setdefault((waiver.kind, waiver.login_id), []).append(waiver)
    since = {card.login_id: card.secret_since_at for card in cards}
    to_do: list[Finding] = []
    waived: list[Finding] = []
    for finding in findings:
        covered = any(
            w.covers(finding, secret_since_at=since[finding.login_id], today=now.date())
            for w in waivers.get((finding.kind, finding.login_id), ())
        )
        (waived if covered else to_do).append(finding)
    return to_do, waived
