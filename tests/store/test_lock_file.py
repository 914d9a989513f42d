"""One process a vault."""

import subprocess
import sys
from pathlib import Path

import pytest

from newknot.store.errors import VaultInUse
from newknot.store.lock_file import LockFile

HOLD = """
import sys, pathlib
from newknot.store.lock_file import LockFile
held = LockFile(pathlib.Path(sys.argv[1]), address="http://127.0.0.1:47806/")
print("held", flush=True)
sys.stdin.read()
"""


def test_another_process_is_told_where_the_first_answers_and_may_follow_it(tmp_path: Path) -> None:
    vault = tmp_path / "own.vault"
    with subprocess.Popen(
        [sys.executable, "-c", HOLD, str(vault)], stdin=subprocess.PIPE, stdout=subprocess.PIPE
    ) as holder:
        assert holder.stdout is not None
        assert holder.stdout.readline() == b"held\n"
        with pytest.raises(VaultInUse) as caught:
            LockFile(vault, address="elsewhere")
        assert caught.value.data["address"] == "http://127.0.0.1:47806/"
        holder.kill()
    LockFile(vault, address="elsewhere").release()
