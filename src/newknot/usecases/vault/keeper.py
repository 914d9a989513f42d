"""The keeper: holds the vault while it is unlocked, counts what runs, and locks in two phases."""

import gc
import re
import urllib.parse
from collections.abc import Callable, Iterator, Sequence
from contextlib import ExitStack, contextmanager, suppress
from pathlib import Path
from threading import Condition, Lock
from typing import TYPE_CHECKING

from newknot.core.address import forget_addresses
from newknot.core.address.likeness import forget_names
from newknot.core.errors import NewKnotError
from newknot.core.generate import RandomSource
from newknot.crypto import KdfParameters, WrongPassphrase
from newknot.store.corpus import SUFFIX as CORPUS_SUFFIX
from newknot.store.corpus import Corpus, opened_again
from newknot.store.manifest import Label
from newknot.store.safeguards import get_safeguards
from newknot.store.vault import Vault
from newknot.usecases.check.checks import CheckMemory
from newknot.usecases.check.measuring import full_measure
from newknot.usecases.check.worklist import WorklistMemory
from newknot.usecases.clock import Clock
from newknot.usecases.copies.backups import backup_if_due
from newknot.usecases.drafts import drop_old_drafts
from newknot.usecases.drawing.draw_ring import ASIDE, DrawRing
from newknot.usecases.drawing.kept_draws import bring_draws_back, keep_draws
from newknot.usecases.drawing.space_shelf import SpaceShelf
from newknot.usecases.errors import BackupFailed, VaultBusy, VaultLocked
from newknot.usecases.logins.login_rows import LoginListMemory
from newknot.usecases.logins.logins import empty_bin
from newknot.usecases.progress import Progress
from newknot.usecases.rotation.driving import Drive
from newknot.usecases.vault.clock_watch import ClockWatch
from newknot.usecases.vault.guessing import GuessBrake
from newknot.usecases.vault.reading_through import ReadThrough
from newknot.usecases.vault.sessions import Sessions
from newknot.usecases.vault.vault_passphrase import (
    Judgement,
    Likeness,
    note_passphrase,
)

if TYPE_CHECKING:
    from newknot.exchange.bundle import BundleContent
    from newknot.usecases.import_export.judging import ImportFile

LOCK_WAIT_S = 10.0
WORK_COUNTS_S = 600.0
"""So long after the last human act a check that is at work counts as use of the vault."""
OF_THE_KEY = (Label.KEPT_MEASURES, Label.PASSPHRASES, Label.RECOVERY)
"""What rests on the vault's key, and means nothing under another."""


class Keeper:
    """One vault file, locked or unlocked, for the life of the process.

    hold_file: takes the lock of the vault file that lies at a path now.
    """

    def __init__(
        self,
        path: Path,
        *,
        state_folder: Path,
        backup_folder: Path,
        clock: Clock,
        random: RandomSource,
        parameters: KdfParameters,
        corpora: Sequence[Corpus],
        refused_corpora: Sequence[tuple[str, str]] = (),
        hold_file: Callable[[Path], None] = lambda path: None,
        overwrite_freed: Callable[[], None] = lambda: None,
        corpora_folder: Path | None = None,
    ) -> None:
        self.path = path
        self.state_folder = state_folder
        self.backup_folder = backup_folder
        self.backup_problem: NewKnotError | None = None
        self.clock = clock
        self.random = random
        self.corpora = list(corpora)
        self.refused_corpora = list(refused_corpora)
        self.corpora_folder = corpora_folder
        self._corpus_paths: set[Path] = set()
        self.sessions = Sessions()
        self.brake = GuessBrake(state_folder / "guesses.json")
        self.clock_watch = ClockWatch(clock, state_folder / "clock.json")
        self.draws = DrawRing(aside=DrawRing(ASIDE))
        self.spaces = SpaceShelf()
        self.likeness = Likeness()
        self.progress = Progress()
        self.checked = CheckMemory()
        self.worklist = WorklistMemory()
        self.login_list = LoginListMemory()
        self.reading = ReadThrough()
        self.drives: dict[str, Drive] = {}
        self.not_begun: dict[str, dict[str, NewKnotError]] = {}
        self.imports: dict[str, ImportFile] = {}
        self.left_out: bytes | None = None
        self.bundles: dict[str, bytes | BundleContent] = {}
        self.waiting_bundle: bytes | None = None
        # Whether the file was placed here as a copy, and not entered yet.
        self.placed = False
        self.parameters = parameters
        self.hold_file = hold_file
        self._overwrite_freed = overwrite_freed
        self._vault: Vault | None = None
        self._changing = Condition()
        # One guess at a time: side by side they would all pass the brake before it closes.
        self._one_guess = Lock()
        self._running = 0
        self._locking = False
        self._deadline_s = 0.0
        self._touched_s = 0.0

    @property
    def exists(self) -> bool:
        """Whether there is a vault file to unlock."""
        return self.path.exists()

    @property
    def is_unlocked(self) -> bool:
        """Whether acts are taken now; past the deadline they are not, even before the lock."""
        open_now = self._vault is not None and not self._locking
        return open_now and self.seconds_left() > 0

    def create(self, passphrase: str, *, drawn: bool = False) -> tuple[str, str]:
        """A new vault, unlocked. drawn: the passphrase, by chance.

        Raises `PassphraseTooWeak`, `PassphraseBreached`, `VaultExists`.
        """
        measured = full_measure(passphrase, vault=None, corpora=self.corpora, context=())
        Judgement(measured, drawn=drawn).require_allowed()
        vault = Vault.create(
            self.path,
            passphrase=passphrase,
            parameters=self.parameters,
            state_folder=self.state_folder,
        )
        self.hold_file(self.path)
        note_passphrase(vault, passphrase, now=self.clock.now())
        return self.take(vault)

    def unlock(self, passphrase: str, cookie: str = "") -> tuple[str, str]:
        """Both halves of a new session. cookie: the half that the browser sent, if any.

        Raises `WrongPassphrase`, `TooManyGuesses`, and the vault's own errors.
        """
        self.lock_if_idle()
        with self._one_guess:
            return self._unlock(passphrase, cookie)

    def _unlock(self, passphrase: str, cookie: str) -> tuple[str, str]:
        with self._changing:
            open_now = self._vault if self.is_unlocked else None
        if open_now is not None:
            self.prove_within(passphrase)
            return self.sessions.begin(self.clock.boot_s(), cookie)
        self.brake.check(self.clock.boot_s())
        self.hold_file(self.path)
        try:
            vault = Vault.unlock(self.path, passphrase=passphrase, state_folder=self.state_folder)
        except WrongPassphrase:
            self.brake.wrong(self.clock.boot_s())
            raise
        self.brake.right()
        if not vault.is_older_copy:
            note_passphrase(vault, passphrase, now=self.clock.now())
            if self.dates_hold():
                empty_bin(vault, now=self.clock.now(), only_expired=True)
                drop_old_drafts(vault, now=self.clock.now())
        return self.take(vault)

    def prove(self, passphrase: str) -> None:
        """Raises `WrongPassphrase` unless it is the unlocked vault's passphrase."""
        with self._one_guess:
            self.prove_within(passphrase)

    def prove_within(self, passphrase: str) -> None:
        """The same, where the guess is held already."""
        self.brake.check(self.clock.boot_s())
        with self.at_work() as vault:
            if not vault.proves(passphrase):
                self.brake.wrong(self.clock.boot_s())
                raise WrongPassphrase()
        self.brake.right()

    @contextmanager
    def one_guess(self) -> Iterator[None]:
        """For whoever is about to try a passphrase or a sheet. Raises `TooManyGuesses`."""
        with self._one_guess:
            self.brake.check(self.clock.boot_s())
            yield

    @contextmanager
    def alone(self) -> Iterator[Vault]:
        """The vault with nobody else at work, and none let in; locked once the block has closed it.

        Raises `VaultLocked`, `VaultBusy`.
        """
        with self._changing:
            if self._vault is None or self._locking:
                raise VaultLocked()
            self._locking = True
            vault = self._vault
            ended = self._changing.wait_for(lambda: self._running == 0, timeout=LOCK_WAIT_S)
        try:
            if not ended:
                raise VaultBusy()
            yield vault
        finally:
            with ExitStack() as ends:
                ends.callback(self._unlockable)
                if not vault.vault_key:
                    self._vault = None
                    self._forget()

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
        self._touched_s = self.clock.boot_s()
        self._deadline_s = self._touched_s + lock_after_s

    def seconds_left(self) -> float:
        """Until the vault locks itself."""
        until_s = self._deadline_s
        if self.progress.running:
            until_s = max(until_s, self._touched_s + WORK_COUNTS_S)
        return max(0.0, until_s - self.clock.boot_s())

    def folder_of(self, vault: Vault) -> Path:
        """Where backups of the vault lie: where the user said, else beside it."""
        place = get_safeguards(vault).backup_place
        return Path(place) if place else self.backup_folder

    def backup_if_due(self) -> None:
        """A backup by schedule; what fails is noted, and tried again the next time."""
        try:
            with self.at_work() as vault:
                backup_if_due(vault, self.folder_of(vault), now=self.clock.now())
            self.backup_problem = None
        except VaultLocked:
            return
        except NewKnotError as error:
            self.backup_problem = error
        except Exception as error:
            self.backup_problem = BackupFailed(kind=type(error).__name__)

    def look_at_corpora(self) -> None:
        """Before a check: what was put, replaced or taken away since is seen."""
        folder = self.corpora_folder
        found = folder.glob(f"*{CORPUS_SUFFIX}") if folder is not None else ()
        # One that was taken away may be put back.
        self._corpus_paths.update(one.path for one in self.corpora)
        corpora, refused = opened_again(self.corpora, sorted({*self._corpus_paths, *found}))
        if [id(one) for one in corpora] != [id(one) for one in self.corpora]:
            # What the former ones said of a secret is not what these say.
            self.checked.clear()
        self.corpora = corpora
        if folder is not None or self._corpus_paths:
            self.refused_corpora = refused

    def look_at_clock(self) -> None:
        """While a vault is open, whether the machine's clock goes as it should."""
        if self.is_unlocked:
            self.clock_watch.look()

    def dates_hold(self) -> bool:
        """Whether what is past its day by the clock may be let go."""
        self.clock_watch.look()
        return self.clock_watch.leap is None

    def read_on(self) -> None:
        """Reads the vault through, a slice at a time, while nobody waits for anything else."""
        if self.reading.waiting and self._running == 0:
            with suppress(VaultLocked), self.at_work() as vault:
                self.reading.go_on(vault, may_go_on=lambda: self._running == 1)

    def lock_if_idle(self) -> None:
        """Locks where the deadline has passed."""
        if self._vault is not None and self.seconds_left() <= 0:
            self._lock(if_idle=True)

    def lock(self) -> None:
        """First no new call is taken and running ones end (10 s at most), then keys go."""
        self._lock(if_idle=False)

    def _lock(self, *, if_idle: bool) -> None:
        with self._changing:
            if self._vault is None or self._locking:
                return
            # It may have been opened, or touched, since it was looked at.
            if if_idle and self.seconds_left() > 0:
                return
            self._locking = True
            self.progress.stop()
            for drive in self.drives.values():
                drive.stop()
            self._changing.wait_for(lambda: self._running == 0, timeout=LOCK_WAIT_S)
        vault = self._vault
        try:
            keep_draws(vault, self.draws)
        finally:
            self._vault = None
            with ExitStack() as ends:
                # Whatever of it fails, the rest is done.
                ends.callback(self._unlockable)
                ends.callback(self._forget)
                vault.close()

    def _unlockable(self) -> None:
        """What a lock forgets is forgotten: a vault may be taken."""
        with self._changing:
            self._locking = False
            self._changing.notify_all()

    def _forget(self) -> None:
        self.sessions.clear()
        self.draws.clear()
        self.spaces.clear()
        self.likeness.clear()
        self.checked.clear()
        self.worklist.clear()
        self.login_list.clear()
        self.reading = ReadThrough()
        self.drives.clear()
        self.not_begun.clear()
        self.imports.clear()
        self.left_out = None
        self.bundles.clear()
        forget_addresses()
        forget_names()
        # What Python itself keeps: patterns that were put together of domains and forbidden texts,
        # and addresses that were taken apart, those of a second factor with its key.
        re.purge()
        urllib.parse.clear_cache()  # type: ignore[attr-defined]
        gc.unfreeze()
        gc.collect()
        # What is left is the program's own: no later walk need go through it.
        gc.freeze()
        self._overwrite_freed()

    def take(self, vault: Vault) -> tuple[str, str]:
        """An opened vault is the one that is held; both halves of a new session."""
        self.placed = False
        vault.wall_s = lambda: self.clock.now().timestamp()
        with self._changing:
            # A lock that is not through would forget what is this one's.
            self._changing.wait_for(lambda: not self._locking)
            if self._vault is not None:
                vault.close()
            else:
                # It may have been opened before a lock wrote its last.
                vault.catch_up()
                self.touch(get_safeguards(vault).lock_after_s)
                self._vault = vault
                bring_draws_back(vault, self.draws)
                self.reading.begin(vault)
            return self.sessions.begin(self.clock.boot_s())
