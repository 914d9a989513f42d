"""Waivers, each a sealed record; those taken back are kept as history."""

from datetime import datetime

from newknot.core.audit import FindingKind
from newknot.core.audit.waiver import Waiver, WaiverReason
from newknot.store.errors import RecordDamaged
from newknot.store.manifest import Label
from newknot.store.record_json import day, iso, moment, packed, unpacked
from newknot.store.vault import Transaction, Vault


def put_waiver(tx: Transaction, waiver: Waiver) -> None:
    """Writes a waiver, new or over its former self."""
    document = {
        "login_id": waiver.login_id,
        "kind": waiver.kind.value,
        "reason": waiver.reason.value,
        "note": waiver.note,
        "given_at": iso(waiver.given_at),
        "until_on": iso(waiver.until_on),
        "evidence": waiver.evidence,
        "others": sorted(waiver.others),
        "lifted_at": iso(waiver.lifted_at),
        "basis": waiver.basis,
        "guess_number_log10": waiver.guess_number_log10,
    }
    tx.put(Label.WAIVER, waiver.waiver_id, packed(document))


def get_waiver(vault: Vault, waiver_id: str) -> Waiver:
    """One waiver. Raises `RecordMissing`, `RecordDamaged`."""
    d = unpacked(vault.get(Label.WAIVER, waiver_id))
    return Waiver(
        waiver_id=waiver_id,
        login_id=d["login_id"],
        kind=FindingKind(d["kind"]),
        reason=WaiverReason(d["reason"]),
        note=d["note"],
        given_at=datetime.fromisoformat(d["given_at"]),
        until_on=day(d["until_on"]),
        evidence=d["evidence"],
        others=frozenset(d["others"]),
        lifted_at=moment(d["lifted_at"]),
        basis=d.get("basis", ""),
        guess_number_log10=d.get("guess_number_log10"),
    )


def list_waivers(vault: Vault) -> list[Waiver]:
    """All that can be read, newest first."""
    waivers = []
    for waiver_id in vault.ids(Label.WAIVER):
        try:
            waivers.append(get_waiver(vault, waiver_id))
        except RecordDamaged:
            continue
    return sorted(waivers, key=lambda w: (w.given_at, w.waiver_id), reverse=True)
