"""The routes of the practice sites, over accounts on disk and sign-ins in memory."""

import secrets
from datetime import UTC, datetime, timedelta
from urllib.parse import parse_qs

import pyotp
from starlette.applications import Starlette
from starlette.requests import Request
from starlette.responses import HTMLResponse, PlainTextResponse, RedirectResponse, Response
from starlette.routing import Route

from newknot.standins.accounts import Accounts
from newknot.standins.pages import (
    change_form,
    code_form,
    code_key_note,
    page,
    sign_in_form,
    sign_up_form,
)
from newknot.standins.sites import SITES, PracticeSite

COOKIE = "practice_session"
BODY_LIMIT = 10_000


class Practice:
    """All sites, told apart by their host names."""

    def __init__(self, accounts: Accounts) -> None:
        self._accounts = accounts
        self._signed_in: dict[str, tuple[str, str]] = {}
        self._half_signed_in: dict[str, tuple[str, str]] = {}

    def app(self) -> Starlette:
        """The application for all sites."""
        return Starlette(
            routes=[
                Route("/", self.home),
                Route("/sign-up", self.sign_up, methods=["GET", "POST"]),
                Route("/sign-in", self.sign_in, methods=["GET", "POST"]),
                Route("/sign-in/code", self.code, methods=["POST"]),
                Route("/sign-out", self.sign_out, methods=["POST"]),
                Route("/change-password", self.change, methods=["GET", "POST"]),
                Route("/confirm", self.confirm),
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
            body = change_form(site, user_name)
            if site.asks_for_code:
                body += code_key_note(self._accounts.code_key(site.host, user_name) or "")
            return _page(site, "Your account", body, said=self._expired(site, user_name))
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
        if site.asks_for_code:
            # Given by whoever prepares an account; else a new one, shown once signed in.
            key = form.get("code_key", "") or pyotp.random_base32()
            self._accounts.put_code_key(site.host, user_name, key)
        return self._welcome(site, user_name)

    async def sign_in(self, request: Request) -> Response:
        """A session for those who know the password."""
        site = _site(request)
        if site is None:
            return _unknown()
        if request.method == "GET":
            return _page(site, "Sign in", sign_in_form(site))
        form = await _form(request)
        user_name = form.get("user_name", "").strip()
        password = site.kept(form.get("password", ""))
        if not self._accounts.fits(site.host, user_name, password):
            said = "User name or password is wrong."
            return _page(site, "Sign in", sign_in_form(site), said=said, status=403)
        if site.asks_for_code:
            token = secrets.token_urlsafe(24)
            self._half_signed_in[token] = (site.host, user_name)
            return _page(site, "One more step", code_form(token))
        return self._welcome(site, user_name)

    async def code(self, request: Request) -> Response:
        """The second step of signing in."""
        site = _site(request)
        if site is None:
            return _unknown()
        form = await _form(request)
        token = form.get("token", "")
        host, user_name = self._half_signed_in.get(token, ("", ""))
        key = self._accounts.code_key(site.host, user_name)
        if host != site.host or key is None:
            return RedirectResponse("/sign-in", 303)
        if not pyotp.TOTP(key).verify(form.get("code", "").strip(), valid_window=1):
            return _page(site, "One more step", code_form(token), said="Wrong code.", status=403)
        del self._half_signed_in[token]
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
        title = "Change password"
        if request.method == "GET":
            return _page(site, title, body, said=self._expired(site, user_name))
        form = await _form(request)
        if not self._accounts.fits(site.host, user_name, site.kept(form.get("password", ""))):
            said = "The current password is wrong."
            return _page(site, title, body, said=said, status=403)
        said = self._refusal(site, user_name, form)
        if said:
            return _page(site, title, body, said=said, status=422)
        kept = site.kept(form["new_password"])
        if site.confirms_by_mail:
            token = self._accounts.let_wait(site.host, user_name, kept)
            link = f"http://{request.headers.get('host', site.host)}/confirm?token={token}"
            text = f"Somebody asked for a new password. If it was you, open {link}"
            self._accounts.send_mail(site.host, user_name, "Confirm your new password", text)
            said = "We sent you a mail: your new password counts once you open its link."
            return _page(site, title, body, said=said)
        self._accounts.put(site.host, user_name, kept)
        self._mail_change(site, user_name)
        return _page(site, title, body, said="Your password has been changed.")

    async def confirm(self, request: Request) -> Response:
        """The link of a mail."""
        site = _site(request)
        if site is None:
            return _unknown()
        if not self._accounts.confirm(site.host, request.query_params.get("token", "")):
            return _page(site, "Confirm", "", said="This link is not good any more.", status=410)
        return _page(site, "Confirm", "", said="Your password has been changed.")

    async def well_known(self, request: Request) -> Response:
        """The well-known address of the change page."""
        return RedirectResponse("/change-password", 302)

    def _mail_change(self, site: PracticeSite, user_name: str) -> None:
        if site.mails_changes:
            text = f"The password of {user_name} at {site.title} was changed just now."
            self._accounts.send_mail(site.host, user_name, "Your password was changed", text)

    def _expired(self, site: PracticeSite, user_name: str) -> str:
        changed_at = self._accounts.changed_at(site.host, user_name)
        if site.expires_days is None or changed_at is None:
            return ""
        if datetime.now(UTC) - changed_at < timedelta(days=site.expires_days):
            return ""
        return f"Your password is older than {site.expires_days} days: change it."

    def _refusal(self, site: PracticeSite, user_name: str, form: dict[str, str]) -> str:
        password = form.get("new_password", "")
        if password != form.get("again", ""):
            return "The two new passwords differ."
        said = site.refusal(password, user_name)
        kept = site.kept(password)
        last = site.remembers
        if not said and last and self._accounts.had(site.host, user_name, kept, last=last):
            return f"You had this password among your last {last}."
        return said

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
