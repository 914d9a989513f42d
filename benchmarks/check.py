"""The check at 10,000 logins: the first ever, after a restart, after one change."""

import random
import resource
import subprocess
import sys
from datetime import UTC, datetime, timedelta
from pathlib import Path

from benchmarks.table import ms, row, timed
from newknot.core.login import Origin
from newknot.core.secret import Secret
from newknot.crypto import KdfParameters
from newknot.store.vault import Vault
from newknot.usecases.check.checks import CheckMemory, run_check
from newknot.usecases.check.standing import standing
from newknot.usecases.logins.logins import LoginDraft, NewSecret, add_login, edit_login, list_logins
from newknot.usecases.progress import Progress

PASSPHRASE = "seven lamps over wet gravel"  # noqa: S105
LOGINS = 10_000
QUICK = KdfParameters(memory_kib=64, passes=1, lanes=1)
WORDS = ("lantern", "gantry", "kettle", "harbour", "copper", "ledger", "winter", "thimble")
MADE_OF = "abcdefghijkmnopqrstuvwxyzABCDEFGHJKLMNPQRSTUVWXYZ23456789!#-_"


def fill(path: Path, state: Path) -> None:
    """10,000 logins: a quarter of the secrets words and years, a quarter typed, half drawn."""
    vault = Vault.create(path, passphrase=PASSPHRASE, parameters=QUICK, state_folder=state)
    draw = random.Random(1)  # noqa: S311 - made up
    now = datetime.now(UTC)
    with vault.transaction():
        for i in range(LOGINS):
            text = "".join(draw.choice(MADE_OF) for _ in range(20))
            origin = Origin("drawn", 118.0)
            if i % 4 == 0:
                text, origin = f"{draw.choice(WORDS)}{draw.randrange(1950, 2026)}", Origin("own")
            elif i % 4 == 1:
                text, origin = text[: draw.randrange(7, 13)].lower(), Origin("own")
            draft = LoginDraft(
                title=f"Site {i:05}",
                user_name=f"ilse{i % 300}@tallowpost.example",
                address=f"https://site{i}.example",
            )
            add_login(
                vault, draft, NewSecret(Secret(text), origin), now=now - timedelta(days=i % 900)
            )
    vault.close()


def bench_check(folder: Path) -> None:
    """In a process of its own, so that its memory is its own."""
    print(f"\nThe check at {LOGINS:,} logins", flush=True)
    subprocess.run([sys.executable, "-m", "benchmarks.check", str(folder)], check=True)


def main(folder: Path) -> None:
    """Fills a vault, and checks it."""
    path, state = folder / "many.vault", folder / "many-state"
    fill(path, state)
    vault = Vault.unlock(path, passphrase=PASSPHRASE, state_folder=state)
    memory, now = CheckMemory(), datetime.now(UTC)

    def check() -> None:
        run_check(vault, lists=(), progress=Progress(), now=now, memory=memory)

    row("  the first ever, everything measured", ms(timed(check)), "30 s")
    row("  again, nothing changed", ms(timed(check)))
    changes: list[float] = []
    for card in list_logins(vault)[0][::1001]:
        draft = LoginDraft(title=card.title, user_name=card.user_name, address=card.address)
        secret = NewSecret(Secret(f"lantern{len(changes)}!"), Origin("own"))
        edit_login(vault, card.login_id, draft, secret, now=now)
        changes.append(timed(check))
    row("  after one change, median", ms(sorted(changes)[len(changes) // 2]), "300 ms")
    row("  its worklist", ms(timed(lambda: standing(vault, now=now))))
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    row("  most memory of the process", f"{peak:.0f} MiB", "400 MB")
    vault.close()
    vault = Vault.unlock(path, passphrase=PASSPHRASE, state_folder=state)
    memory.clear()
    row("  after a restart", ms(timed(check)), "5 s")
    vault.close()


if __name__ == "__main__":
    main(Path(sys.argv[1]))
