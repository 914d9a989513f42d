"""Another way in: a new passphrase, the way back in by sheets, a new key for the whole vault."""

from collections.abc import Sequence
from contextlib import suppress

from newknot.crypto import WrongPassphrase
from newknot.store.manifest import Label
from newknot.store.rekey import put_in_place, write_under_new_key
from newknot.store.vault import Vault
from newknot.usecases.copies.backups import make_backup
from newknot.usecases.errors import SheetsVoid, VaultLocked
from newknot.usecases.vault import vault_passphrase
from newknot.usecases.vault.keeper import Keeper
from newknot.usecases.vault.recovery import joined
from newknot.usecases.vault.sessions import Session
from newknot.usecases.vault.vault_passphrase import judge

OF_THE_KEY = (Label.KEPT_MEASURES, Label.PASSPHRASES, Label.RECOVERY)
"""What rests on the vault's key, and means nothing under another."""


def recover(
    keeper: Keeper, sheets: Sequence[str], passphrase: str, *, drawn: bool
) -> tuple[str, str]:
    """The vault opened by its recovery sheets and put under a new passphrase.

    Raises `ShareWrong`, `SheetsVoid`, `TooManyGuesses`, what a new passphrase is refused for
    (nothing is changed then), and the vault's own errors.
    """
    key = joined(sheets)
    with keeper.one_guess():
        with suppress(VaultLocked), keeper.at_work() as vault:
            # Whoever has no sheet of this vault does not lock it for others.
            if not vault.recovers(key):
                keeper.brake.wrong(keeper.clock.boot_s())
                raise SheetsVoid()
        keeper.lock()
        keeper.hold_file(keeper.path)
        try:
            vault = Vault.recover(keeper.path, key=key, state_folder=keeper.state_folder)
        except WrongPassphrase:
            keeper.brake.wrong(keeper.clock.boot_s())
            raise SheetsVoid() from None
        keeper.brake.right()
        try:
            _changed(keeper, vault, passphrase, drawn=drawn)
        except BaseException:
            keeper.likeness.clear()
            vault.close()
            raise
        return keeper.take(vault)


def change_passphrase(
    keeper: Keeper, session: Session, current: str, passphrase: str, *, drawn: bool
) -> None:
    """The vault key sealed under a new passphrase; all other sessions end.

    Raises `WrongPassphrase`, `TooManyGuesses`, `PassphraseTooWeak`, `PassphraseBreached`,
    `PassphraseResembles`.
    """
    with keeper.one_guess(), keeper.at_work() as vault:
        keeper.prove_within(current)
        _changed(keeper, vault, passphrase, drawn=drawn)
        keeper.sessions.keep_only(session)


def new_key(keeper: Keeper, current: str, passphrase: str, *, drawn: bool) -> tuple[str, str]:
    """The whole vault sealed anew under a new key and passphrase, after a backup of it as it was.
    No former key, sheet or passphrase opens the file any more; a new session begins.

    Raises what a new passphrase is refused for, `WrongPassphrase`, `VaultDamaged`,
    `BackupNotVerified`, `VaultFolderRefused`; the vault is then as it was.
    """
    building = keeper.path.with_name(keeper.path.name + ".new-key")
    # Throughout: an unlock in between would open the file that is about to give way.
    with keeper.one_guess():
        with keeper.at_work() as vault:
            keeper.prove_within(current)
            judge(
                passphrase,
                vault=vault,
                corpora=keeper.corpora,
                likeness=keeper.likeness,
                drawn=drawn,
            ).require_allowed()
            make_backup(vault, keeper.folder_of(vault), now=keeper.clock.now())
        with keeper.alone() as vault:
            write_under_new_key(
                vault,
                building,
                passphrase=passphrase,
                parameters=keeper.parameters,
                without=OF_THE_KEY,
            )
            put_in_place(vault, keeper.path, building)
            keeper.hold_file(keeper.path)
    return keeper.unlock(passphrase)


def _changed(keeper: Keeper, vault: Vault, passphrase: str, *, drawn: bool) -> None:
    vault_passphrase.change_passphrase(
        vault,
        passphrase,
        corpora=keeper.corpora,
        likeness=keeper.likeness,
        parameters=keeper.parameters,
        now=keeper.clock.now(),
        drawn=drawn,
    )
