"""Serving: holds the vault's lock and answers on 127.0.0.1 until stopped."""

import gc
import logging
import socket
import threading
import time
import webbrowser
from pathlib import Path

import uvicorn

from newknot.api.app import make_app
from newknot.crypto import INTERACTIVE
from newknot.edge import SystemClock, SystemRandom, overwrite_freed
from newknot.store.corpus import Corpus
from newknot.store.vault_lock import VaultLock
from newknot.usecases.vault.keeper import Keeper

COLLECTED_AFTER = (50_000, 20, 20)


def run_server(
    lock: VaultLock,
    *,
    port: int,
    web_folder: Path,
    anchors: Path,
    corpora: list[Corpus],
    refused_corpora: list[tuple[str, str]],
    corpora_folder: Path | None,
    says: str,
    opens_browser: bool = False,
) -> None:
    """Serves the vault whose lock is held, until stopped. SIGTERM and Ctrl C lock it first."""
    vault_path, address = lock.vault, lock.address
    keeper = Keeper(
        vault_path,
        state_folder=anchors,
        backup_folder=vault_path.parent / "backups",
        clock=SystemClock(),
        random=SystemRandom(),
        parameters=INTERACTIVE,
        corpora=corpora,
        refused_corpora=refused_corpora,
        corpora_folder=corpora_folder,
        hold_file=lock.hold_file,
        overwrite_freed=overwrite_freed,
    )
    app = make_app(keeper, port=port, web_folder=web_folder)
    # What was imported stays: collecting among it while it is made would only slow the start.
    gc.freeze()
    # By default it walks after every 700 new objects; a check of a large vault makes millions.
    gc.set_threshold(*COLLECTED_AFTER)
    gc.enable()
    logging.basicConfig(level=logging.WARNING, format="%(levelname)s %(message)s")
    print(f"New Knot is ready:  {address}", flush=True)
    if says:
        print(says, flush=True)
    if opens_browser:
        threading.Thread(target=_open_when_answering, args=(address, port), daemon=True).start()
    try:
        uvicorn.run(
            app,
            host="127.0.0.1",
            port=port,
            # The faster loop keeps one read buffer for life, with what was last sent in it.
            loop="asyncio",
            http="httptools",
            ws="none",
            log_config=None,
            access_log=False,
            server_header=False,
            timeout_graceful_shutdown=2,
        )
    finally:
        lock.release()


def _open_when_answering(address: str, port: int) -> None:
    until = time.monotonic() + 60
    while time.monotonic() < until:
        with socket.socket() as probe:
            if probe.connect_ex(("127.0.0.1", port)) == 0:
                webbrowser.open(address)
                return
        time.sleep(0.1)
