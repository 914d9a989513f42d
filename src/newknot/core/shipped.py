"""The one loader of data files that ship with the package (`core/data`)."""

import gzip
from functools import cache
from importlib.resources import files


def shipped_bytes(name: str) -> bytes:
    """The content of a shipped file; `.gz` files are opened."""
    raw = files("newknot.core").joinpath("data", name).read_bytes()
    return gzip.decompress(raw) if name.endswith(".gz") else raw


@cache
def shipped_lines(name: str) -> tuple[str, ...]:
    """The lines of a shipped text file that are neither empty nor comments."""
    lines = shipped_bytes(name).decode("utf-8").splitlines()
    return tuple(line for line in lines if line and not line.startswith("# "))
