"""The keeper: holds the vault while it is unlocked, counts what runs, and locks in two phases."""

import gc
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path
from threading import Condition, Lock
from typing import TYPE_CHECKING

from newknot.core.address import forget_addresses
from newknot.core.generate import RandomSource
from newknot.crypto import KdfParameters, WrongPassphrase
from newknot.store.safeguards import get_safeguards
from newknot.store.vault import Vault
from newknot.usecases.checks import CheckMemory
from newknot.usecases.clock import Clock
from newknot.usecases.draw_ring import DrawRing
from newknot.usecases.driving import Drive
from newknot.usecases.errors import VaultLocked
from newknot.usecases.guessing import GuessBrake
from newknot.usecases.logins import empty_bin
from newknot.usecases.measuring import full_measure
from newknot.usecases.progress import Progress
from newknot.usecases.sessions import Sessions
from newknot.usecases.space_shelf import SpaceShelf
from newknot.usecases.vault_passphrase import (
    Judgement,
    Likeness,
    change_passphrase,
    note_passphrase,
)

if TYPE_CHECKING:
    from newknot.exchange.csv_logins import CsvTable
    from newknot.store.corpus import Corpus

LOCK_WAIT_S = 10.0


class Keeper:
    """One vault file, locked or unlocked, for the life of the process."""

    def __init__(
        self,
        path: Path,
        *,
        state_folder: Path,
        backup_folder: Path,
        clock: Clock,
        random: RandomSource,
        parameters: KdfParameters,
        corpora: "Sequence[Corpus]",
        refused_corpora: Sequence[tuple[str, str]] = (),
    ) -> None:
        self.path = path
        self.state_folder = state_folder
        self.backup_folder = backup_folder
        self.clock = clock
        self.random = random
        self.corpora = list(corpora)
        self.refused_corpora = list(refused_corpora)
        self.sessions = Sessions()
        self.brake = GuessBrake()
        self.draws = DrawRing()
        self.spaces = SpaceShelf()
        self.likeness = Likeness()
        self.progress = Progress()
        self.checked = CheckMemory()
        self.drives: dict[str, Drive] = {}
        self.imports: dict[str, CsvTable] = {}
        self._parameters = parameters
        self._vault: Vault | None = None
        self._changing = Condition()
        # One guess at a time: side by side they would all pass the brake before it closes.
        self._one_guess = Lock()
        self._running = 0
        self._locking = False
        self._deadline_s = 0.0

    @property
    def exists(self) -> bool:
        """Whether there is a vault file to unlock."""
        return self.path.exists()

    @property
    def is_unlocked(self) -> bool:
        """Whether acts are taken now; past the deadline they are not, even before the lock."""
        open_now = self._vault is not None and not self._locking
        return open_now and self.clock.boot_s() < self._deadline_s

    def create(self, passphrase: str) -> tuple[str, str]:
        """A new vault, unlocked.

        Raises `PassphraseTooWeak`, `PassphraseBreached`, `VaultExists`.
        """
        measured = full_measure(passphrase, vault=None, corpora=self.corpora, context=())
        Judgement(measured).require_allowed()
        vault = Vault.create(
            self.path,
            passphrase=passphrase,
            parameters=self._parameters,
            state_folder=self.state_folder,
        )
        note_passphrase(vault, passphrase, now=self.clock.now())
        return self._take(vault)

    def unlock(self, passphrase: str) -> tuple[str, str]:
        """Both halves of a new session.

        Raises `WrongPassphrase`, `TooManyGuesses`, and the vault's own errors.
        """
        self.lock_if_idle()
        with self._one_guess:
            return self._unlock(passphrase)

    def _unlock(self, passphrase: str) -> tuple[str, str]:
        with self._changing:
            open_now = self._vault if self.is_unlocked else None
        if open_now is not None:
            self._prove(passphrase)
            return self.sessions.begin(self.clock.boot_s())
        self.brake.check(self.clock.boot_s())
        try:
            vault = Vault.unlock(self.path, passphrase=passphrase, state_folder=self.state_folder)
        except WrongPassphrase:
            self.brake.wrong(self.clock.boot_s())
            raise
        self.brake.right()
        if not vault.is_older_copy:
            note_passphrase(vault, passphrase, now=self.clock.now())
            empty_bin(vault, now=self.clock.now(), only_expired=True)
        return self._take(vault)

    def prove(self, passphrase: str) -> None:
        """Raises `WrongPassphrase` unless it is the unlocked vault's passphrase."""
        with self._one_guess:
            self._prove(passphrase)

    def _prove(self, passphrase: str) -> None:
        self.brake.check(self.clock.boot_s())
        with self.at_work() as vault:
            if not vault.proves(passphrase):
                self.brake.wrong(self.clock.boot_s())
                raise WrongPassphrase()
        self.brake.right()

    def change_passphrase(self, current: str, passphrase: str) -> None:
        """The vault key sealed under a new passphrase.

        Raises `WrongPassphrase`, `TooManyGuesses`, `PassphraseTooWeak`, `PassphraseBreached`,
        `PassphraseResembles`.
        """
        with self._one_guess, self.at_work() as vault:
            self._prove(current)
            change_passphrase(
                vault,
                passphrase,
                corpora=self.corpora,
                likeness=self.likeness,
                parameters=self._parameters,
                now=self.clock.now(),
            )

    @contextmanager
    def at_work(self) -> Iterator[Vault]:
        """The vault for the length of one call; a lock waits for it. Raises `VaultLocked`."""
        with self._changing:
            if self._vault is None or self._locking:
                raise VaultLocked()
            self._running += 1
            vault = self._vault
        try:
            yield vault
        finally:
            with self._changing:
                self._running -= 1
                self._changing.notify_all()

    def touch(self, lock_after_s: int) -> None:
        """A human act: the idle time begins anew."""
        self._deadline_s = self.clock.boot_s() + lock_after_s

    def seconds_left(self) -> float:
        """Until the vault locks itself."""
        return max(0.0, self._deadline_s - self.clock.boot_s())

    def lock_if_idle(self) -> None:
        """Locks where the deadline has passed."""
        if self._vault is not None and self.clock.boot_s() >= self._deadline_s:
            self.lock()

    def lock(self) -> None:
        """First no new call is taken and running ones end (10 s at most), then keys go."""
        with self._changing:
            if self._vault is None or self._locking:
                return
            self._locking = True
            self.progress.stop()
            for drive in self.drives.values():
                drive.stop()
            self._changing.wait_for(lambda: self._running == 0, timeout=LOCK_WAIT_S)
            vault, self._vault = self._vault, None
            self._locking = False
        vault.close()
        self.sessions.clear()
        self.draws.clear()
        self.spaces.clear()
        self.likeness.clear()
        self.checked.clear()
        self.drives.clear()
        self.imports.clear()
        forget_addresses()
        gc.unfreeze()
        gc.collect()

    def _take(self, vault: Vault) -> tuple[str, str]:
        with self._changing:
            if self._vault is not None:
                vault.close()
            else:
                self._vault = vault
                self._deadline_s = self.clock.boot_s() + get_safeguards(vault).lock_after_s
        return self.sessions.begin(self.clock.boot_s())
