"""Waivers: given on what stands to be done, and taken back."""

from collections.abc import Sequence
from dataclasses import replace
from datetime import date, datetime
from enum import StrEnum

from newknot.core.audit import Finding, FindingKind
from newknot.core.audit.waiver import Waiver, WaiverReason
from newknot.core.calendar_day import day_of
from newknot.core.errors import FieldInvalid
from newknot.core.login import checked_text
from newknot.store.vault import Vault, new_id
from newknot.store.waivers import get_waiver, list_waivers, put_waiver
from newknot.usecases.check.standing import Standing, standing
from newknot.usecases.errors import FindingUnknown

__all__ = ["FoundNow", "found_now", "give_waivers", "lift_waivers", "list_waivers"]


class FoundNow(StrEnum):
    """What stands now of that on which a waiver was given."""

    ACCEPTED = "accepted"
    TO_DO = "to_do"
    """Found again on other grounds, which it does not cover."""
    NOTHING = "nothing"


def found_now(
    waivers: Sequence[Waiver], found: Standing, *, today: date
) -> dict[str, FoundNow | None]:
    """By waiver id; None where it holds no more."""
    accepted = {(finding.kind, finding.login_id) for finding in found.accepted}
    to_do = {(finding.kind, finding.login_id) for finding in found.to_do}

    def of(key: tuple[FindingKind, str]) -> FoundNow:
        if key in accepted:
            return FoundNow.ACCEPTED
        return FoundNow.TO_DO if key in to_do else FoundNow.NOTHING

    return {
        one.waiver_id: of((one.kind, one.login_id)) if one.holds(today) else None for one in waivers
    }


def give_waivers(
    vault: Vault,
    accepted: Sequence[tuple[FindingKind, str]],
    *,
    reason: WaiverReason,
    note: str,
    until_on: date | None,
    now: datetime,
) -> list[Waiver]:
    """One waiver for each finding of these (kind, login id), on its evidence of today.

    Raises `FieldInvalid`, and `FindingUnknown` where no such finding stands.
    """
    text = checked_text(note, field="note")
    if until_on is not None and until_on < day_of(now):
        raise FieldInvalid("until_on", "is past already")
    found = standing(vault, now=now)
    by_key: dict[tuple[FindingKind, str], list[Finding]] = {}
    for finding in (*found.to_do, *found.accepted):
        if finding.login_id in found.cards:
            by_key.setdefault((finding.kind, finding.login_id), []).append(finding)
    waivers = []
    for kind, login_id in accepted:
        if (kind, login_id) not in by_key:
            raise FindingUnknown()
        for finding in by_key[kind, login_id]:
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
                    basis=finding.basis,
                    guess_number_log10=finding.guess_number_log10,
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
