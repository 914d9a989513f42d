"""Wiring: the API as a sub-application, the interface's files, and the gate before both."""

import asyncio
import logging
from collections.abc import AsyncIterator, Callable
from contextlib import asynccontextmanager
from pathlib import Path

from fastapi import Depends, FastAPI

from newknot import __version__
from newknot.api import errors, pages
from newknot.api.guard import Guard
from newknot.api.routers import drafts, events, policies
from newknot.api.routers.check import checks, notices, reports, strength, waivers, worklist
from newknot.api.routers.copies import backups, bundles
from newknot.api.routers.drawing import draws
from newknot.api.routers.import_export import exports, imports
from newknot.api.routers.logins import (
    addresses,
    histories,
    login_rows,
    logins,
    loose_ends,
    second_factors,
)
from newknot.api.routers.rotation import campaigns, mails, rotations
from newknot.api.routers.vault import first_hour, recovery, safeguards, vault
from newknot.api.whole_text import require_whole_text
from newknot.core.address import warm_suffixes
from newknot.core.strength.measure import warm
from newknot.usecases.vault.keeper import Keeper

_log = logging.getLogger("newknot")
IDLE_LOOK_S = 1.0
BACKUP_LOOK_S = 60.0
READ_LOOK_S = 0.2
CLOCK_LOOK_S = 20.0
ROUTERS = (
    vault,
    draws,
    loose_ends,
    events,
    login_rows,
    logins,
    second_factors,
    histories,
    policies,
    strength,
    checks,
    worklist,
    waivers,
    notices,
    mails,
    addresses,
    reports,
    rotations,
    campaigns,
    imports,
    exports,
    bundles,
    backups,
    recovery,
    safeguards,
    first_hour,
    drafts,
)


def make_api(keeper: Keeper, *, port: int) -> FastAPI:
    """The API alone, without pages or gate."""
    api = FastAPI(
        title="New Knot",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        dependencies=[Depends(require_whole_text)],
    )
    api.state.keeper = keeper
    api.state.port = port
    errors.install(api)
    for module in ROUTERS:
        api.include_router(module.router)
    return api


def make_app(keeper: Keeper, *, port: int, web_folder: Path) -> Guard:
    """The whole application for 127.0.0.1:port."""
    api = make_api(keeper, port=port)

    @asynccontextmanager
    async def lifespan(app: FastAPI) -> AsyncIterator[None]:
        # Side by side: a disk that hangs in a backup holds no lock up.
        watches = [
            asyncio.create_task(_each(IDLE_LOOK_S, keeper.lock_if_idle)),
            asyncio.create_task(_each(BACKUP_LOOK_S, keeper.backup_if_due)),
            asyncio.create_task(_each(READ_LOOK_S, keeper.read_on)),
            asyncio.create_task(_each(CLOCK_LOOK_S, keeper.look_at_clock)),
        ]
        asyncio.get_running_loop().run_in_executor(None, _make_ready, api)
        yield
        for watch in watches:
            watch.cancel()
        await asyncio.gather(*watches, return_exceptions=True)
        keeper.lock()

    app = FastAPI(openapi_url=None, docs_url=None, redoc_url=None, lifespan=lifespan)
    app.mount("/api", api)
    pages.install(app, web_folder)
    return Guard(app, port=port)


def _make_ready(api: FastAPI) -> None:
    """What is made at its first use is made before it. One thing after another, so that whoever
    unlocks meanwhile has half of the time and not less.
    """
    for route in api.routes:
        # A router's routes are put together when it is first asked whether a call is for it.
        route.matches({"type": "http", "method": "GET", "path": "/", "headers": []})
    warm_suffixes()
    warm()


async def _each(seconds: float, act: Callable[[], None]) -> None:
    """Does it again and again; whatever goes wrong once, it is done the next time."""
    while True:
        await asyncio.sleep(seconds)
        try:
            await asyncio.to_thread(act)
        except Exception as error:
            _log.error("%s while looking after the vault", type(error).__name__)
