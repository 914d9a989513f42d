"""The mail tray, watched while a change is under way: which mail fits which rotation."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from newknot.core.address import domain_of
from newknot.core.login import LoginCard
from newknot.core.rotation.change_mail import ChangeMail, fits, is_about
from newknot.exchange.mails import read_mails
from newknot.outside.mail_service import fetch_mails
from newknot.store.mails import HeldMails, get_mails, put_mails
from newknot.store.rotations import list_rotations
from newknot.store.safeguards import get_safeguards
from newknot.store.vault import Vault
from newknot.usecases.errors import ServiceOff
from newknot.usecases.logins.logins import list_logins

__all__ = ["get_mails", "look_into_tray", "placed_mails"]

LOOKED_AT_LEAST = timedelta(seconds=4)


@dataclass(frozen=True, slots=True)
class PlacedMail:
    """A mail with the logins it may be about, and the rotation that explains it, if one does."""

    mail: ChangeMail
    login_ids: tuple[str, ...]
    rotation_id: str | None


def look_into_tray(vault: Vault, *, now: datetime) -> HeldMails:
    """The mails that tell of changes, as they are now; written only where they changed.

    Raises `ServiceOff`, `OutsideFailed`, `MailsRefused`; what was fetched before stays then.
    """
    safeguards = get_safeguards(vault)
    if not safeguards.mail_used:
        raise ServiceOff()
    held = get_mails(vault)
    if held is not None and timedelta(0) <= now - held.fetched_at < LOOKED_AT_LEAST:
        return held
    fresh = HeldMails(now, tuple(read_mails(fetch_mails(safeguards.mail_address))))
    if held is None or held.mails != fresh.mails:
        with vault.transaction() as tx:
            put_mails(tx, vault, fresh)
    return fresh


def placed_mails(vault: Vault, held: HeldMails) -> list[PlacedMail]:
    """Each mail that is about a login here, newest first."""
    cards, _ = list_logins(vault)
    by_login = {card.login_id: card for card in cards}
    by_site: dict[str, list[LoginCard]] = {}
    for card in cards:
        by_site.setdefault(domain_of(card.address), []).append(card)
    rotations = [r for r in list_rotations(vault) if r.login_id in by_login]
    placed: list[PlacedMail] = []
    for mail in sorted(held.mails, key=lambda one: one.sent_at, reverse=True):
        about = tuple(c.login_id for c in by_site.get(mail.site, ()) if is_about(mail, c))
        if about:
            explained = (r for r in rotations if fits(mail, by_login[r.login_id], r))
            rotation = next(explained, None)
            placed.append(PlacedMail(mail, about, rotation.rotation_id if rotation else None))
    return placed
