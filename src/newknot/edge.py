"""Where the outside comes in: the clock, randomness, folders of the platform, and hardening."""

import ctypes
import os
import resource
import secrets
import sys
import time
from datetime import UTC, datetime
from pathlib import Path

from platformdirs import user_data_path, user_state_path

_PR_SET_DUMPABLE = 4
MEMORY_SETTINGS = {
    "PYTHONMALLOC": "malloc",
    "MALLOC_PERTURB_": "165",
    "GLIBC_TUNABLES": "glibc.malloc.tcache_count=0",
}
"""Freed memory is overwritten, so that secrets do not outlive a lock. What lies in the
allocator's per-thread cache is not, so there is none."""


class SystemClock:
    """The machine's clocks."""

    def now(self) -> datetime:
        """Aware UTC."""
        return datetime.now(UTC)

    def boot_s(self) -> float:
        """Seconds since boot, sleep included."""
        return time.clock_gettime(time.CLOCK_BOOTTIME)


class SystemRandom:
    """The operating system's randomness."""

    def randbelow(self, n: int, /) -> int:
        """A uniform integer in [0, n)."""
        return secrets.randbelow(n)


def data_folder() -> Path:
    """Where vaults lie by the platform's convention."""
    return user_data_path("newknot")


def state_folder() -> Path:
    """Where anchors lie, apart from the vaults they watch over."""
    return user_state_path("newknot")


def runtime_folder() -> Path:
    """Where programs that run tell one another of themselves."""
    return state_folder() / "running"


def harden() -> None:
    """No core dumps, no reading by other processes of the user; freed memory overwritten.

    Starts the program again where the memory settings were not in its environment.
    """
    if any(os.environ.get(name) != value for name, value in MEMORY_SETTINGS.items()):
        environment = {**os.environ, **MEMORY_SETTINGS}
        arguments = [sys.executable, "-m", "newknot", *sys.argv[1:]]
        os.execve(sys.executable, arguments, environment)  # noqa: S606
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    if sys.platform == "linux":
        ctypes.CDLL(None).prctl(_PR_SET_DUMPABLE, 0, 0, 0, 0)
