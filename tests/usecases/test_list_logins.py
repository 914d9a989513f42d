"""Lists of all logins, which are brought up to date by the few that changed."""

from dataclasses import replace

import pytest

from newknot.core.login import Importance, LoginCard
from newknot.store.logins import list_cards, put_card, remove_login
from newknot.store.vault import Vault
from newknot.usecases.check.reach import reset_by
from newknot.usecases.logins.logins import list_logins
from tests.store.samples import AT


def card_of(n: int) -> LoginCard:
    """Each third has a mailbox named, each fourth one by its address."""
    title, user_name = f"Site {n % 5}", "ilse@s1.example" if n % 4 == 2 else "ilse"
    named = ((), (), "", "", (), Importance.NORMAL, None, None if n % 3 else f"{1:032x}")
    return LoginCard(
        f"{n:032x}", title, user_name, f"https://s{n}.example", "", *named, AT, AT, AT, False
    )


@pytest.mark.parametrize("few", [100, 0])
def test_lists_that_are_brought_up_to_date_are_as_made_anew(
    vault: Vault, monkeypatch: pytest.MonkeyPatch, few: int
) -> None:
    """After changes of one login and of several at once; a list that was handed out stays."""
    monkeypatch.setattr("newknot.store.logins.FEW", few)
    cards = [card_of(n) for n in range(12)]
    third, fifth = cards[3], cards[5]
    steps: list[list[LoginCard]] = [cards[:8], cards[8:9], [replace(third, title="Aaa")]]
    steps += [[replace(fifth, deleted_at=AT)], [replace(fifth, title="Zoom")], cards[9:], []]
    steps += [[replace(third, resets_by=None)], [replace(third, resets_by=fifth.login_id)]]
    for step in steps:
        held = list_logins(vault)[0]
        copy = list(held)
        with vault.transaction() as tx:
            for card in step:
                put_card(tx, card)
            if not step:
                remove_login(tx, cards[0].login_id)
        assert held == copy
        found = list_cards(vault), list_logins(vault), set(reset_by(vault))
        with vault.transaction():
            # Within a transaction each is made anew.
            assert found == (list_cards(vault), list_logins(vault), set(reset_by(vault)))
    assert len(found[0][0]) == len(found[1][0]) == 11 and len(found[2]) == 5
