"""Which login can reset which: as named by the user, or as the mail addresses tell."""

from collections.abc import Sequence
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


def resets(logins: Sequence[Addressed]) -> list[Reset]:
    """A login without a named mailbox, whose user name is a mail address, is taken to be reset by
    the one login at the address's own domain that has the address or its first part as user name.
    """
    known = {login.login_id for login in logins}
    mailboxes: dict[str, list[str]] = {}
    for login in logins:
        domain, name = domain_of(login.address), login.user_name.lower()
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
