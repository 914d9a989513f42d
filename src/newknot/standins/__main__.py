"""Serves the stand-ins on 127.0.0.1, told apart by their NAME.localhost."""

import argparse
import os
import secrets
import sys
import threading
from pathlib import Path
from urllib.parse import parse_qs

import uvicorn
from starlette.applications import Starlette
from starlette.requests import Request
from starlette.responses import HTMLResponse, PlainTextResponse, RedirectResponse, Response
from starlette.routing import BaseRoute, Host, Mount, Route

from newknot.standins import notice_feed, range_service
from newknot.standins.accounts import Accounts
from newknot.standins.pages import change_form, page, sign_in_form, sign_up_form
from newknot.standins.sites import SITES, PracticeSite

COOKIE = "practice_session"
BODY_LIMIT = 10_000
RANGES_NAME, RANGES_DATED_ON = "list held elsewhere", "2026-09-15"


class Practice:
    """The routes, over accounts on disk and sign-ins in memory."""

    def __init__(self, accounts: Accounts) -> None:
        self._accounts = accounts
        self._signed_in: dict[str, tuple[str, str]] = {}

    def app(self) -> Starlette:
        """The application for all sites."""
        return Starlette(
            routes=[
                Route("/", self.home),
                Route("/sign-up", self.sign_up, methods=["GET", "POST"]),
                Route("/sign-in", self.sign_in, methods=["GET", "POST"]),
                Route("/sign-out", self.sign_out, methods=["POST"]),
                Route("/change-password", self.change, methods=["GET", "POST"]),
                Route("/.well-known/change-password", self.well_known),
            ]
        )

    async def home(self, request: Request) -> Response:
        """Where one arrives."""
        site = _site(request)
        if site is None:
            return _unknown()
        user_name = self._user(request, site)
        if user_name:
            return _page(site, "Your account", change_form(site, user_name))
        return _page(site, "Welcome", "<p>Sign in or sign up above.</p>")

    async def sign_up(self, request: Request) -> Response:
        """A new account."""
        site = _site(request)
        if site is None:
            return _unknown()
        if request.method == "GET":
            return _page(site, "Sign up", sign_up_form(site))
        form = await _form(request)
        user_name = form.get("user_name", "").strip()
        said = self._refusal(site, user_name, form)
        if not said and (not user_name or self._accounts.exists(site.host, user_name)):
            said = "This user name is taken."
        if said:
            return _page(site, "Sign up", sign_up_form(site), said=said, status=422)
        self._accounts.put(site.host, user_name, site.kept(form["new_password"]))
        return self._welcome(site, user_name)

    async def sign_in(self, request: Request) -> Response:
        """A session for those who know the password."""
        site = _site(request)
        if site is None:
            return _unknown()
        if request.method == "GET":
            return _page(site, "Sign in", sign_in_form())
        form = await _form(request)
        user_name = form.get("user_name", "").strip()
        password = site.kept(form.get("password", ""))
        if not self._accounts.fits(site.host, user_name, password):
            said = "User name or password is wrong."
            return _page(site, "Sign in", sign_in_form(), said=said, status=403)
        return self._welcome(site, user_name)

    async def sign_out(self, request: Request) -> Response:
        """Ends the session."""
        self._signed_in.pop(request.cookies.get(COOKIE, ""), None)
        return RedirectResponse("/sign-in", 303)

    async def change(self, request: Request) -> Response:
        """The change form."""
        site = _site(request)
        if site is None:
            return _unknown()
        user_name = self._user(request, site)
        if not user_name:
            return RedirectResponse("/sign-in", 303)
        body = change_form(site, user_name)
        if request.method == "GET":
            return _page(site, "Change password", body)
        form = await _form(request)
        if not self._accounts.fits(site.host, user_name, site.kept(form.get("password", ""))):
            said = "The current password is wrong."
            return _page(site, "Change password", body, said=said, status=403)
        said = self._refusal(site, user_name, form)
        if said:
            return _page(site, "Change password", body, said=said, status=422)
        self._accounts.put(site.host, user_name, site.kept(form["new_password"]))
        return _page(site, "Change password", body, said="Your password has been changed.")

    async def well_known(self, request: Request) -> Response:
        """The well-known address of the change page."""
        return RedirectResponse("/change-password", 302)

    def _refusal(self, site: PracticeSite, user_name: str, form: dict[str, str]) -> str:
        password = form.get("new_password", "")
        if password != form.get("again", ""):
            return "The two new passwords differ."
        return site.refusal(password, user_name)

    def _user(self, request: Request, site: PracticeSite) -> str:
        host, user_name = self._signed_in.get(request.cookies.get(COOKIE, ""), ("", ""))
        return user_name if host == site.host else ""

    def _welcome(self, site: PracticeSite, user_name: str) -> Response:
        token = secrets.token_urlsafe(24)
        self._signed_in[token] = (site.host, user_name)
        response = RedirectResponse("/", 303)
        response.set_cookie(COOKIE, token, httponly=True, samesite="lax")
        return response


def _site(request: Request) -> PracticeSite | None:
    return SITES.get(request.headers.get("host", "").split(":")[0])


def _unknown() -> Response:
    return PlainTextResponse("No practice site of this name.", 404)


def _page(
    site: PracticeSite, title: str, body: str, *, said: str = "", status: int = 200
) -> Response:
    return HTMLResponse(page(site, title, body, said=said), status)


async def _form(request: Request) -> dict[str, str]:
    body = (await request.body())[:BODY_LIMIT].decode("utf-8", "replace")
    return {name: values[0] for name, values in parse_qs(body, keep_blank_values=True).items()}


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
    routes.append(Mount("/", Practice(Accounts(arguments.accounts)).app()))
    uvicorn.run(
        Starlette(routes=routes),
        host="127.0.0.1",
        port=arguments.port,
        log_level="warning",
        timeout_graceful_shutdown=1,
    )


if __name__ == "__main__":
    main()
