"""10,000 logins out, in, and merged with a copy that went another way."""

import resource
import subprocess
import sys
from datetime import UTC, datetime
from pathlib import Path

from benchmarks.check import LOGINS, PASSPHRASE, QUICK, fill
from benchmarks.table import row, timed
from newknot.crypto import INTERACTIVE
from newknot.exchange.csv_logins import write_logins
from newknot.exchange.cxf import write_cxf
from newknot.store.vault import Vault, new_id
from newknot.usecases.copies.bundles import merge_in, open_file, take_out
from newknot.usecases.import_export.exports import carried_logins
from newknot.usecases.import_export.imports import apply_import
from newknot.usecases.import_export.judging import first_mapping, preview_import, read_file
from newknot.usecases.logins.logins import LoginDraft, edit_login, list_logins

SEAL = "orchard velvet lantern quarry"
CHANGED = 2_000


def bench_carry(folder: Path) -> None:
    """In a process of its own, so that its memory is its own."""
    print(f"\nCarrying {LOGINS:,} logins", flush=True)
    subprocess.run([sys.executable, "-m", "benchmarks.carry", str(folder)], check=True)


def main(folder: Path) -> None:
    """Out in each format, in again, and merged."""
    now = datetime.now(UTC)
    fill(folder / "here.vault", folder / "here-state")
    here = Vault.unlock(
        folder / "here.vault", passphrase=PASSPHRASE, state_folder=folder / "here-state"
    )
    files: dict[str, bytes] = {}

    def out(kind: str) -> None:
        if kind == "CSV":
            files[kind] = write_logins(carried_logins(here))
        elif kind == "CXF":
            made = write_cxf(carried_logins(here), now=now, new_id=lambda: bytes.fromhex(new_id()))
            files[kind] = made
        else:
            files[kind] = take_out(
                here, passphrase=SEAL, parameters=INTERACTIVE, corpora=(), now=now
            )

    for kind in ("CSV", "CXF", "sealed bundle"):
        row(f"  out as {kind}", f"{timed(out, kind):.2f} s", "10 s")

    def brought_in(kind: str) -> None:
        path = folder / f"{kind}.vault"
        fresh = Vault.create(
            path, passphrase=PASSPHRASE, parameters=QUICK, state_folder=folder / f"{kind}-state"
        )
        file = read_file(files[kind])
        mapping = first_mapping(file)
        preview_import(fresh, file, mapping, now=now)
        apply_import(fresh, file, mapping, also_lines=(), not_lines=(), now=now)
        assert len(list_logins(fresh)[0]) == LOGINS
        fresh.close()

    for kind in ("CSV", "CXF"):
        row(
            f"  in from {kind}: read, looked at, written",
            f"{timed(brought_in, kind):.2f} s",
            "10 s",
        )
    there = Vault.create(
        folder / "there.vault",
        passphrase=PASSPHRASE,
        parameters=QUICK,
        state_folder=folder / "there-state",
    )

    def merged(into: Vault, bundle: bytes) -> None:
        merge_in(
            into, open_file(into, bundle, passphrase=SEAL), take_out_of_bin=frozenset(), now=now
        )

    first = timed(merged, there, files["sealed bundle"])
    row("  merged into an empty vault", f"{first:.2f} s", "20 s")
    for vault, places in (
        (here, slice(0, CHANGED)),
        (there, slice(CHANGED // 2, 3 * CHANGED // 2)),
    ):
        with vault.transaction():
            for card in list_logins(vault)[0][places]:
                draft = LoginDraft(
                    title=f"{card.title}, changed", user_name=card.user_name, address=card.address
                )
                edit_login(vault, card.login_id, draft, None, now=now)
    out("sealed bundle")
    again = timed(merged, there, files["sealed bundle"])
    row(f"  two vaults merged, {CHANGED:,} logins changed in each", f"{again:.2f} s", "20 s")
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    row("  most memory of the process", f"{peak:.0f} MiB", "500 MB")


if __name__ == "__main__":
    main(Path(sys.argv[1]))
