"""The notices last fetched, as one sealed record."""

from dataclasses import dataclass
from datetime import date, datetime

from newknot.core.audit.notice import Notice
from newknot.store.errors import RecordDamaged
from newknot.store.manifest import Label
from newknot.store.record_json import iso, moment, packed, unpacked
from newknot.store.vault import Transaction, Vault, new_id


@dataclass(frozen=True, slots=True)
class HeldNotices:
    """When they were fetched, and how many items of the feed could not be read."""

    fetched_at: datetime
    notices: tuple[Notice, ...]
    unread_count: int


def put_notices(tx: Transaction, vault: Vault, held: HeldNotices) -> None:
    """Writes the one record, new or over the former."""
    ids = vault.ids(Label.NOTICES)
    document = {
        "fetched_at": iso(held.fetched_at),
        "unread_count": held.unread_count,
        "notices": [
            [n.notice_id, n.title, n.site, iso(n.breached_on), list(n.taken)] for n in held.notices
        ],
        "seen_at": [iso(n.seen_at) for n in held.notices],
    }
    tx.put(Label.NOTICES, ids[0] if ids else new_id(), packed(document))


def get_notices(vault: Vault) -> HeldNotices | None:
    """What was fetched last; None where nothing was, or the record is damaged."""
    ids = vault.ids(Label.NOTICES)
    if not ids:
        return None
    try:
        d = unpacked(vault.get(Label.NOTICES, ids[0]))
    except RecordDamaged:
        return None
    # Earlier programs noted only the last time that all of them were fetched.
    seen = d.get("seen_at") or [d["fetched_at"]] * len(d["notices"])
    notices = tuple(
        Notice(notice_id, title, site, date.fromisoformat(day), tuple(taken), moment(seen_at))
        for (notice_id, title, site, day, taken), seen_at in zip(d["notices"], seen, strict=True)
    )
    return HeldNotices(datetime.fromisoformat(d["fetched_at"]), notices, d["unread_count"])
