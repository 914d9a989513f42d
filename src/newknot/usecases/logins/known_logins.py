"""What is known while a login is typed: whether it is there, or its site; and what others have."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

from newknot.core.address import host_of
from newknot.core.login import LoginCard
from newknot.core.login_search import folded
from newknot.store.manifest import Label
from newknot.store.vault import Vault
from newknot.usecases.logins.logins import list_logins

USER_NAMES_MOST = 50
NAMES_HERE_MOST = 3


@dataclass(frozen=True, slots=True)
class Habits:
    """The folders there are, in order, and the user names most often used, the first first."""

    folders: tuple[str, ...]
    user_names: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class KnownLogin:
    """same: the login that is the typed one already. address: of its title or site, and user_names
    used there, where these are not typed yet.
    """

    same: LoginCard | None
    address: str
    user_names: tuple[str, ...]


def habits(vault: Vault) -> Habits:
    """Of all logins outside the bin."""
    return vault.once("habits", (Label.LOGIN,), lambda: _habits(list_logins(vault)[0]))


def _habits(cards: Sequence[LoginCard]) -> Habits:
    folders = sorted({card.folder for card in cards if card.folder})
    names = Counter(card.user_name for card in cards if card.user_name)
    return Habits(tuple(folders), tuple(name for name, _ in names.most_common(USER_NAMES_MOST)))


def known_login(vault: Vault, *, title: str, user_name: str, address: str) -> KnownLogin:
    """What is there with this title, or at the host of this address."""
    sought, host = folded(title.strip()), host_of(address.strip())
    here = [
        card
        for card in list_logins(vault)[0]
        if (sought and folded(card.title.strip()) == sought)
        or (host and host_of(card.address) == host)
    ]
    name = folded(user_name.strip())
    names = dict.fromkeys(card.user_name for card in here if card.user_name)
    return KnownLogin(
        same=next((card for card in here if folded(card.user_name.strip()) == name), None),
        address="" if address.strip() else next((c.address for c in here if c.address), ""),
        user_names=() if name else tuple(names)[:NAMES_HERE_MOST],
    )
