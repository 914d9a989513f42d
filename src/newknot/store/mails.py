"""Mails that tell of changes, as one sealed record."""

from dataclasses import dataclass
from datetime import datetime

from newknot.core.rotation.change_mail import ChangeMail
from newknot.store.errors import RecordDamaged
from newknot.store.manifest import Label
from newknot.store.record_json import iso, packed, unpacked
from newknot.store.vault import Transaction, Vault, new_id


@dataclass(frozen=True, slots=True)
class HeldMails:
    """What was in the tray when it was last looked into."""

    fetched_at: datetime
    mails: tuple[ChangeMail, ...]


def put_mails(tx: Transaction, vault: Vault, held: HeldMails) -> None:
    """Writes the one record, new or over the former."""
    ids = vault.ids(Label.MAILS)
    document = {
        "fetched_at": iso(held.fetched_at),
        "mails": [
            [m.mail_id, m.site, m.user_name, m.subject, iso(m.sent_at), m.link] for m in held.mails
        ],
    }
    tx.put(Label.MAILS, ids[0] if ids else new_id(), packed(document))


def get_mails(vault: Vault) -> HeldMails | None:
    """What was fetched last; None where nothing was, or the record is damaged."""
    ids = vault.ids(Label.MAILS)
    if not ids:
        return None
    try:
        d = unpacked(vault.get(Label.MAILS, ids[0]))
    except RecordDamaged:
        return None
    mails = tuple(
        ChangeMail(mail_id, site, user_name, subject, datetime.fromisoformat(sent_at), link)
        for mail_id, site, user_name, subject, sent_at, link in d["mails"]
    )
    return HeldMails(datetime.fromisoformat(d["fetched_at"]), mails)
