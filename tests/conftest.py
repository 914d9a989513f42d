"""What tests share: cheap key parameters, a vault on disk, clocks that are set by hand."""

import gc
import time
from collections.abc import Callable, Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from hypothesis import settings

from newknot.crypto import KdfParameters
from newknot.store.vault import Vault

CHEAP = KdfParameters(passes=1, memory_kib=64, lanes=1)
PASSPHRASE = "seven lamps over wet gravel"

# A busy machine is slow, not wrong.
settings.register_profile("here", deadline=None)
settings.load_profile("here")


@pytest.fixture(scope="session", autouse=True)
def heap_of_the_tests() -> Iterator[None]:
    """A lock collects what a test left, not the modules and tools of the whole run each time."""
    with pytest.MonkeyPatch.context() as patched:
        patched.setattr(gc, "unfreeze", lambda: None)
        gc.collect()
        gc.freeze()
        yield


class HandClock:
    """Stands still until it is moved."""

    def __init__(self) -> None:
        self.at = datetime(2026, 11, 25, 12, tzinfo=UTC)
        self.boot = 1000.0

    def now(self) -> datetime:
        return self.at

    def boot_s(self) -> float:
        return self.boot

    def pass_s(self, seconds: float) -> None:
        """So many seconds later."""
        self.at += timedelta(seconds=seconds)
        self.boot += seconds


def wait_until(holds: Callable[[], object], *, within_s: float = 20.0) -> None:
    """Until a condition holds; fails where it does not in time."""
    until = time.monotonic() + within_s
    while not holds():
        assert time.monotonic() < until, "not in time"
        time.sleep(0.01)


def new_vault(folder: Path) -> Vault:
    """A vault file with cheap key parameters."""
    return Vault.create(
        folder / "own.vault",
        passphrase=PASSPHRASE,
        parameters=CHEAP,
        state_folder=folder / "state",
    )


def reopened(folder: Path, passphrase: str = PASSPHRASE) -> Vault:
    """The vault file again."""
    return Vault.unlock(folder / "own.vault", passphrase=passphrase, state_folder=folder / "state")


@pytest.fixture
def vault(tmp_path: Path) -> Iterator[Vault]:
    """A new, unlocked vault in a folder of its own."""
    one = new_vault(tmp_path)
    yield one
    one.close()


@pytest.fixture
def clock() -> HandClock:
    """A clock set by hand."""
    return HandClock()
