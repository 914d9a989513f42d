"""The list of logins as it is asked for: searched, by folder, in an order, a part at a time."""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from threading import Lock
from typing import Literal

from newknot.core.address import domain_of
from newknot.core.login import LoginCard
from newknot.core.login_search import haystack, nearest, words_of
from newknot.store.manifest import Label
from newknot.store.vault import Vault
from newknot.usecases.logins.logins import list_logins

Order = Literal["site", "findings"]
KEPT_MOST = 8
"""Lists as last asked for, so that scrolling and going back do not search again."""


@dataclass(frozen=True, slots=True)
class SiteHead:
    """Several logins at one site stand together under its name."""

    domain: str
    count: int


@dataclass(frozen=True, slots=True)
class LoginLine:
    """place: among the logins of the list, heads left out."""

    card: LoginCard
    in_group: bool
    place: int


@dataclass(frozen=True, slots=True)
class LoginLines:
    """Heads and logins in their order; found logins of all; folders with how many they hold."""

    lines: tuple[SiteHead | LoginLine, ...]
    found: int
    total: int
    damaged: tuple[str, ...]
    folders: Mapping[str, int]


class LoginListMemory:
    """All cards with what they are found by. It holds titles: in memory alone, gone at the lock."""

    def __init__(self) -> None:
        self._lock = Lock()
        self.clear()

    def clear(self) -> None:
        """Forgets them."""
        self._counter = self._changed = -1
        self._cards: list[tuple[LoginCard, str]] = []
        self._damaged: tuple[str, ...] = ()
        self._folders: Mapping[str, int] = {}
        self._lists: dict[tuple[str, ...], LoginLines] = {}

    def lines(
        self,
        vault: Vault,
        *,
        search: str,
        folder: str | None,
        order: Order,
        urgent: Sequence[str],
    ) -> LoginLines:
        """The whole list. urgent: ids of logins in the order of the worklist."""
        with self._lock:
            self._look(vault)
            key = (*sorted(set(words_of(search))), "\0", repr(folder), order)
            held = self._lists.pop(key, None)
            if held is None:
                found = [
                    card
                    for card in self._matching(search)
                    if folder is None or card.folder == folder
                ]
                lines = _by_findings(found, urgent) if order == "findings" else _by_site(found)
                held = LoginLines(
                    tuple(lines), len(found), len(self._cards), self._damaged, self._folders
                )
            self._lists[key] = held
            while len(self._lists) > KEPT_MOST:
                del self._lists[next(iter(self._lists))]
            return held

    def find(self, vault: Vault, typed: str, most: int) -> list[LoginCard]:
        """The nearest few."""
        with self._lock:
            self._look(vault)
            return nearest(((c.title, c) for c in self._matching(typed)), typed, most)

    def _matching(self, typed: str) -> list[LoginCard]:
        words = words_of(typed)
        return [card for card, hay in self._cards if all(word in hay for word in words)]

    def _look(self, vault: Vault) -> None:
        """Makes all of it anew where anything changed."""
        counter, changed = vault.changes_of_contents, vault.changed_at.get(Label.LOGIN, 0)
        if counter != self._counter:
            self._lists = {}
            self._counter = counter
        if changed == self._changed:
            return
        cards, damaged = list_logins(vault)
        former = {one[0].login_id: one for one in self._cards}
        # What a login is found by is made once for each card.
        self._cards = [
            held
            if (held := former.get(card.login_id)) is not None and held[0] is card
            else (card, haystack(card))
            for card in cards
        ]
        self._damaged = tuple(damaged)
        self._folders = dict(sorted(Counter(card.folder for card in cards).items()))
        self._changed = changed


def _by_findings(found: Sequence[LoginCard], urgent: Sequence[str]) -> list[SiteHead | LoginLine]:
    places = {login_id: at for at, login_id in enumerate(urgent)}
    ordered = sorted(found, key=lambda card: places.get(card.login_id, len(places)))
    return [LoginLine(card, False, at) for at, card in enumerate(ordered)]


def _by_site(found: Sequence[LoginCard]) -> list[SiteHead | LoginLine]:
    members: dict[str, list[LoginCard]] = {}
    for at, card in enumerate(found):
        members.setdefault(domain_of(card.address) or f"\0{at}", []).append(card)
    lines: list[SiteHead | LoginLine] = []
    place = 0
    for domain, group in members.items():
        if len(group) > 1:
            lines.append(SiteHead(domain, len(group)))
        for card in group:
            lines.append(LoginLine(card, len(group) > 1, place))
            place += 1
    return lines
