"""Wiring: the API as a sub-application, the interface's files, and the gate before both."""

import asyncio
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager, suppress
from pathlib import Path

from fastapi import FastAPI

from newknot import __version__
from newknot.api import errors, pages
from newknot.api.guard import Guard
from newknot.api.routers import (
    addresses,
    backups,
    bundles,
    campaigns,
    checks,
    draws,
    events,
    exports,
    histories,
    imports,
    logins,
    loose_ends,
    mails,
    notices,
    policies,
    recovery,
    reports,
    rotations,
    safeguards,
    second_factors,
    strength,
    vault,
    waivers,
)
from newknot.core.strength.measure import warm
from newknot.usecases.keeper import Keeper

IDLE_LOOK_S = 1.0
BACKUP_LOOKS = 60
ROUTERS = (
    vault,
    draws,
    loose_ends,
    events,
    logins,
    second_factors,
    histories,
    policies,
    strength,
    checks,
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
)


def make_api(keeper: Keeper, *, port: int) -> FastAPI:
    """The API alone, without pages or gate."""
    api = FastAPI(title="New Knot", version=__version__, docs_url=None, redoc_url=None)
    api.state.keeper = keeper
    api.state.port = port
    errors.install(api)
    for module in ROUTERS:
        api.include_router(module.router)
    return api


def make_app(keeper: Keeper, *, port: int, web_folder: Path) -> Guard:
    """The whole application for 127.0.0.1:port."""

    @asynccontextmanager
    async def lifespan(app: FastAPI) -> AsyncIterator[None]:
        watch = asyncio.create_task(_lock_when_idle(keeper))
        asyncio.get_running_loop().run_in_executor(None, warm)
        yield
        watch.cancel()
        with suppress(asyncio.CancelledError):
            await watch
        keeper.lock()

    app = FastAPI(openapi_url=None, docs_url=None, redoc_url=None, lifespan=lifespan)
    app.mount("/api", make_api(keeper, port=port))
    pages.install(app, web_folder)
    return Guard(app, port=port)


async def _lock_when_idle(keeper: Keeper) -> None:
    looks = 0
    while True:
        await asyncio.sleep(IDLE_LOOK_S)
        await asyncio.to_thread(keeper.lock_if_idle)
        looks += 1
        if looks % BACKUP_LOOKS == 0:
            await asyncio.to_thread(keeper.backup_if_due)
