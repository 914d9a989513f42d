"""Which login can reset which: as named by the user, or as the mail addresses tell."""

import re
from collections.abc import Collection, Sequence
from dataclasses import dataclass
from typing import Protocol

from newknot.core.address import domain_of


@dataclass(frozen=True, slots=True)
class Reset:
    """The mailbox login `by` can reset the login `of`. is_guess: the user did not name it."""

    by: str
    of: str
    is_guess: bool


class Addressed(Protocol):
    """What is needed of a login."""

    @property
    def login_id(self) -> str: ...
    @property
    def user_name(self) -> str: ...
    @property
    def address(self) -> str: ...
    @property
    def resets_by(self) -> str | None: ...


_PLAINLY_COMPARED_MOST = 40


def _plainly_at(domains: Collection[str]) -> re.Pattern[str] | None:
    """What a plain address at one of the domains holds; None where each has to be read."""
    if len(domains) > _PLAINLY_COMPARED_MOST or not all(one.isascii() for one in domains):
        return None
    return re.compile("|".join(map(re.escape, domains)), re.IGNORECASE)


def resets(logins: Sequence[Addressed]) -> list[Reset]:
    """A login without a named mailbox, whose user name is a mail address, is taken to be reset by
    the one login at the address's own domain that has the address or its first part as user name.
    """
    known = {login.login_id for login in logins}
    asked = {login.user_name.lower() for login in logins if login.resets_by is None}
    at = {name.rpartition("@")[2] for name in asked if "@" in name}
    plainly = _plainly_at(at)
    mailboxes: dict[str, list[str]] = {}
    for login in logins:
        address = login.address
        plain = address.isascii() and "%" not in address
        # What is plain is not read for nothing.
        if not at or (plainly is not None and plain and not plainly.search(address)):
            continue
        domain, name = domain_of(address), login.user_name.lower()
        if domain and name:
            first, _, rest = name.partition("@")
            if rest in ("", domain):
                mailboxes.setdefault(f"{first}@{domain}", []).append(login.login_id)
    found: list[Reset] = []
    for login in logins:
        if login.resets_by is not None:
            if login.resets_by in known and login.resets_by != login.login_id:
                found.append(Reset(login.resets_by, login.login_id, is_guess=False))
            continue
        boxes = mailboxes.get(login.user_name.lower(), ())
        if len(boxes) == 1 and boxes[0] != login.login_id:
            found.append(Reset(boxes[0], login.login_id, is_guess=True))
    return found
