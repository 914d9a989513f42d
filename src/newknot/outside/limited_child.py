"""Programs of their own that read foreign content: executed without keys, under limits."""

import json
import subprocess
import sys
from pathlib import Path
from typing import Any


class ChildFailed(Exception):
    """The child ran out of time or memory, or answered nothing that can be read."""


def run_limited(program: Path, body: bytes, *, within_s: float, alone: bool) -> Any:
    """What a program of this package answers to a body, as JSON. Raises `ChildFailed`.

    alone: without the installed packages, so that it starts at once.
    """
    switches = ("-I", "-S") if alone else ("-I",)
    command = (sys.executable, *switches, str(program))
    try:
        done = subprocess.run(
            command, input=body, capture_output=True, timeout=within_s, env={}, check=False
        )
        return json.loads(done.stdout)
    except (subprocess.TimeoutExpired, ValueError):
        raise ChildFailed() from None
