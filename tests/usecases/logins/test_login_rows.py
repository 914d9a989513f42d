"""The list that is kept in memory: as the vault is now, and nothing of it after a lock."""

from dataclasses import replace
from datetime import UTC, datetime

from newknot.core.login import Origin
from newknot.core.secret import Secret
from newknot.store.vault import Vault
from newknot.usecases.logins.login_rows import LoginLine, LoginListMemory
from newknot.usecases.logins.logins import LoginDraft, NewSecret, add_login, edit_login

NOW = datetime(2026, 11, 25, 12, tzinfo=UTC)


def titles(rows: LoginListMemory, vault: Vault) -> list[str]:
    found = rows.lines(vault, search="", folder=None, order="site", urgent=())
    return [one.card.title if isinstance(one, LoginLine) else one.domain for one in found.lines]


def test_a_change_is_seen_those_of_no_site_stand_alone_and_a_lock_forgets_all(vault: Vault) -> None:
    rows, draft = LoginListMemory(), LoginDraft(title="Gantry")
    card = add_login(vault, draft, NewSecret(Secret("rope"), Origin("own")), now=NOW)
    add_login(vault, LoginDraft(title="Truss"), None, now=NOW)
    assert titles(rows, vault) == ["Gantry", "Truss"]
    edit_login(vault, card.login_id, replace(draft, title="Plank"), None, now=NOW)
    assert titles(rows, vault) == ["Plank", "Truss"]
    assert "Plank" in repr(vars(rows))
    rows.clear()
    assert "Plank" not in repr(vars(rows))
