"""Of what has one record, a damaged one is told as none, and fails nothing."""

from collections.abc import Callable

import pytest

from newknot.core.own_details import OwnDetails
from newknot.store.checks import get_check
from newknot.store.kept_measures import get_kept_measures
from newknot.store.loose_ends import list_loose_ends
from newknot.store.mails import get_mails
from newknot.store.notices import get_notices
from newknot.store.own_details import get_own_details
from newknot.store.passphrases import get_passphrases
from newknot.store.recovery import get_recovery
from newknot.store.sealed_file import AT_ONCE_LEAST
from newknot.store.taken_out import get_clear_files
from newknot.store.vault import CARD, Label, Vault, new_id


@pytest.mark.parametrize(
    ("label", "read", "none"),
    [
        (Label.CHECK, get_check, None),
        (Label.KEPT_MEASURES, get_kept_measures, {}),
        (Label.LOOSE_END, list_loose_ends, []),
        (Label.MAILS, get_mails, None),
        (Label.NOTICES, get_notices, None),
        (Label.OWN_DETAILS, get_own_details, OwnDetails()),
        (Label.PASSPHRASES, get_passphrases, []),
        (Label.RECOVERY, get_recovery, None),
        (Label.TAKEN_OUT, get_clear_files, []),
    ],
)
def test_one_that_is_damaged_is_as_none(
    vault: Vault, label: Label, read: Callable[[Vault], object], none: object
) -> None:
    assert read(vault) == none
    with vault.transaction() as tx:
        tx.put(label, new_id(), b'{"of": "another shape"}')
    vault.connection.execute("UPDATE records SET sealed = randomblob(length(sealed))")
    assert read(vault) == none


@pytest.mark.parametrize("count", [AT_ONCE_LEAST - 1, AT_ONCE_LEAST + 20])
def test_of_few_and_of_many_just_the_damaged_ones_are_told(vault: Vault, count: int) -> None:
    ids = sorted(new_id() for _ in range(count))
    with vault.transaction() as tx:
        for one in ids:
            tx.put(Label.LOGIN, one, one.encode())
            tx.put(Label.LOGIN, one, b"another part", part=CARD + 1)
    broken, gone, older = ids[3], ids[5], ids[7]
    for sql, one in (
        ("UPDATE records SET sealed = randomblob(length(sealed)) WHERE record_id = ?", broken),
        ("DELETE FROM records WHERE record_id = ?", gone),
        ("UPDATE records SET revision = 9 WHERE record_id = ?", older),
    ):
        vault.connection.execute(sql, (bytes.fromhex(one),))
    good, damaged = vault.decoded_all(Label.LOGIN, CARD, lambda one, text: (one, text.decode()))
    assert damaged == [broken, gone, older]
    assert good == [(one, one) for one in ids if one not in damaged]
