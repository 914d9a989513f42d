"""Where the outside comes in: the clock, randomness, folders of the platform, and hardening."""

import ctypes
import mmap
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
    "GLIBC_TUNABLES": "glibc.malloc.tcache_count=0:glibc.malloc.arena_max=1",
}
"""Freed memory is overwritten, so that secrets do not outlive a lock. What lies in the
allocator's per-thread cache is not, so there is none. One arena: of another thread's, nothing can
be taken to be overwritten whole.
"""
_SIZES = (*(1 << bits for bits in range(16, 5, -1)), 48, 32)
"""Of the chunks in which free memory is taken: every chunk is so many of these, and less than the
smallest is left to none.
"""
_TAKEN_MOST = 1 << 22


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


def overwrite_freed() -> None:
    """Overwrites whole what lies free, where the C library is glibc. It overwrites each chunk that
    is freed but for the last eight bytes (malloc.c, `free_perturb`): a text of seven characters
    stands there, or the end of one of 23.
    """
    here = ctypes.PyDLL(None)
    if not hasattr(here, "malloc_trim"):
        return
    here.calloc.restype = here.sbrk.restype = ctypes.c_size_t
    here.calloc.argtypes = [ctypes.c_size_t, ctypes.c_size_t]
    here.sbrk.argtypes = [ctypes.c_ssize_t]
    here.free.argtypes, here.free.restype = [ctypes.c_size_t], None
    # What is free side by side becomes one, and whole pages go back to the system.
    here.malloc_trim(0)
    # Where the chunks are noted lies apart from what they are taken of.
    with mmap.mmap(-1, _TAKEN_MOST * ctypes.sizeof(ctypes.c_size_t)) as room:
        taken = (ctypes.c_size_t * _TAKEN_MOST).from_buffer(room)
        count = 0
        for size in _SIZES:
            end = here.sbrk(0)
            while count < _TAKEN_MOST:
                # All of a chunk that is taken so is zeroed.
                chunk = here.calloc(1, size - ctypes.sizeof(ctypes.c_size_t))
                if chunk == 0:
                    break
                taken[count] = chunk
                count += 1
                # Beyond what the program had there is nothing of its own.
                if chunk + size > end:
                    break
        for at in range(count):
            here.free(taken[at])
        del taken
    here.malloc_trim(0)
