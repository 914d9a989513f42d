"""Serves the stand-ins on 127.0.0.1, told apart by their NAME.localhost."""

import argparse
import os
import sys
import threading
from pathlib import Path

import uvicorn
from starlette.applications import Starlette
from starlette.routing import BaseRoute, Host, Mount

from newknot.standins import mail_tray, notice_feed, range_service
from newknot.standins.accounts import Accounts
from newknot.standins.practice import Practice

RANGES_NAME, RANGES_DATED_ON = "list held elsewhere", "2026-09-15"


def _end_with_input() -> None:
    sys.stdin.buffer.read()
    os._exit(0)


def main() -> None:
    """Runs until stopped."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--port", type=int, required=True)
    parser.add_argument("--accounts", type=Path, required=True)
    parser.add_argument("--ranges", type=Path, help="a list of HASH[:count]")
    parser.add_argument("--notices", type=Path, help="a list of notices, JSON")
    parser.add_argument("--while-input-is-open", action="store_true")
    arguments = parser.parse_args()
    if arguments.while_input_is_open:
        threading.Thread(target=_end_with_input, daemon=True).start()
    routes: list[BaseRoute] = []
    if arguments.ranges is not None:
        held = range_service.RangeList(arguments.ranges, name=RANGES_NAME, dated_on=RANGES_DATED_ON)
        routes.append(Host(range_service.HOST, held.app()))
    if arguments.notices is not None:
        routes.append(Host(notice_feed.HOST, notice_feed.notice_app(arguments.notices)))
    accounts = Accounts(arguments.accounts)
    routes.append(Host(mail_tray.HOST, mail_tray.mail_app(accounts)))
    routes.append(Mount("/", Practice(accounts).app()))
    uvicorn.run(
        Starlette(routes=routes),
        host="127.0.0.1",
        port=arguments.port,
        log_level="warning",
        timeout_graceful_shutdown=1,
    )


if __name__ == "__main__":
    main()
