"""How much hangs on a login: the user's own word, and a guess for mailboxes and money."""

import re
from typing import Protocol

from newknot.core.login import Importance


class Weighed(Protocol):
    """What is needed of a login."""

    @property
    def title(self) -> str: ...
    @property
    def importance(self) -> Importance: ...


MAILBOX = "a mailbox that resets others"
_MONEY = re.compile(
    r"\b(?:bank|banking|credit union|payroll|pension|payments?|savings|insurance|invest\w*|tax"
    r"|loans?|mortgage|wallet)\b"
)


def importance_of(login: Weighed, *, resets_others: bool) -> tuple[Importance, str]:
    """The importance to order by, and on what guess it rests; empty where it is the user's own.

    Only what was left at normal is guessed: a mailbox that resets others, or money, is high.
    """
    if login.importance is Importance.NORMAL:
        if resets_others:
            return Importance.HIGH, MAILBOX
        if _MONEY.search(login.title.lower()):
            return Importance.HIGH, "money, by its title"
    return login.importance, ""


class Importances:
    """`importance_of`, asked once for what it rests on. It holds titles: in memory alone."""

    def __init__(self) -> None:
        self._held: dict[tuple[Importance, str, bool], tuple[Importance, str]] = {}

    def of(self, login: Weighed, *, resets_others: bool) -> tuple[Importance, str]:
        """As `importance_of` says."""
        by = login.importance, login.title, resets_others
        if by not in self._held:
            self._held[by] = importance_of(login, resets_others=resets_others)
        return self._held[by]
