"""A login comes back as it was put."""

from dataclasses import replace
from datetime import date

from newknot.core.login import (
    EarlierSecret,
    Importance,
    LoginCard,
    LoginSecrets,
    PlainField,
    SecretField,
)
from newknot.core.secret import Secret
from newknot.store import logins
from newknot.store.vault import Vault, new_id
from tests.store.samples import AT, DRAWN, ODD, OWN


def test_a_login_with_everything(vault: Vault) -> None:
    login_id = new_id()
    card = LoginCard(
        login_id=login_id, title=ODD, user_name=ODD, address="https://a.example", notes=ODD * 50,
        fields=(PlainField("a", ODD),), secret_field_names=("pin",), folder="f", owner="Maud",
        tags=("x", "y"), importance=Importance.CRITICAL, expires_on=date(2027, 1, 2),
        resets_by=new_id(), created_at=AT, changed_at=AT, secret_since_at=AT, has_secret=True,
        deleted_at=AT,
    )  # fmt: skip
    held = LoginSecrets(
        Secret(ODD), DRAWN, (SecretField("pin", Secret("4417"), "p"),), Secret("otpauth"),
        secret_id="s", code_key_id="k",
    )  # fmt: skip
    history = tuple(
        EarlierSecret(f"{i:02}", Secret(ODD + str(i)), OWN, AT, AT, used=i % 2 == 0, parted=i == 7)
        for i in range(40)
    )
    with vault.transaction() as tx:
        logins.put_card(tx, card)
        logins.put_secrets(tx, login_id, held)
        logins.put_history(tx, login_id, history)
    assert logins.get_card(vault, login_id) == card
    assert logins.get_secrets(vault, login_id) == held
    assert logins.get_history(vault, login_id) == history
    assert logins.list_cards(vault) == ([card], [])


def test_what_a_merge_put_into_the_history_and_is_current_is_not_among_the_earlier(
    vault: Vault,
) -> None:
    login_id = new_id()
    own, parted = (
        EarlierSecret(i, Secret("rope"), OWN, AT, AT, used=True, parted=i == "b") for i in "ab"
    )
    other = replace(parted, earlier_id="c", secret=Secret("lamp"))
    with vault.transaction() as tx:
        logins.put_secrets(tx, login_id, LoginSecrets(Secret("rope"), OWN, secret_id="s"))
        logins.put_history(tx, login_id, (own, parted, other))
    assert logins.get_history(vault, login_id) == (own, other)


def test_secrets_from_before_they_had_ids_have_one_that_stays(vault: Vault) -> None:
    login_id = new_id()
    fields = (SecretField("pin", Secret("4417")),)
    with vault.transaction() as tx:
        logins.put_secrets(tx, login_id, LoginSecrets(Secret("rope"), OWN, fields))
    first, again = (logins.get_secrets(vault, login_id) for _ in range(2))
    assert first == again and len({first.secret_id, first.fields[0].secret_id}) == 2
    assert first.code_key_id == ""
