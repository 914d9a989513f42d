"""A site that is driven by the open standards: its change page by the well-known address (a W3C
draft, "A Well-Known URL for Changing Passwords"), its forms by their `autocomplete` tokens.

Bounded in time, redirects and size; only the login's own origin (scheme, host and port) and what
its user allowed beside it, by https or on this machine. The secrets leave in bodies of POST alone.
"""

import time
from collections.abc import Callable, Collection
from dataclasses import dataclass
from pathlib import Path
from urllib.parse import urlencode

from newknot.core.address import Site, address_from, site_of
from newknot.core.errors import FieldInvalid
from newknot.core.rotation.site_form import (
    CODE,
    CURRENT,
    NEW,
    USER_NAME,
    FormNotUnderstood,
    SiteForm,
    SitePage,
)
from newknot.outside import form_reader
from newknot.outside.limited_child import ChildFailed, run_limited
from newknot.outside.reaching import OutsideFailed, at_loopback, outside_client

WELL_KNOWN = "/.well-known/change-password"
NOT_THERE = "/.well-known/resource-that-should-not-exist-whose-status-code-should-not-be-200"
REDIRECTS_MOST = 6
PAGE_MOST = form_reader.INPUT_MOST
READING_S = 10.0
_FORM_READER = Path(form_reader.__file__)
_REDIRECTS = (301, 302, 303, 307, 308)
_NO_ANSWER = (423, 429)
"""Statuses that say nothing of whether a secret is right (RFC 4918, RFC 6585)."""


class DriveStopped(OutsideFailed):
    """The site was left: by the stop button, or because its time was over. data: reason."""


@dataclass(frozen=True, slots=True)
class Visited:
    """A page as it was answered."""

    address: str
    status: int
    page: SitePage


class PagesRead:
    """What the visits of one drive saw before they sent anything: the same page is not read again.
    What is answered later may repeat what was sent, and is not held.
    """

    def __init__(self) -> None:
        self._held: dict[bytes, SitePage] = {}

    def page(self, body: bytes) -> SitePage:
        """Its forms. Raises `FormNotUnderstood`."""
        if body not in self._held:
            self._held[body] = read_page(body)
        return self._held[body]


class DrivenSite:
    """One visit, with the cookies of that visit alone. may_go_on is asked in every wait. also:
    origins of the site that its user allowed beside that of the address.
    """

    def __init__(
        self,
        address: str,
        *,
        own_port: int,
        may_go_on: Callable[[], bool],
        until_s: float,
        also: Collection[str] = (),
        read: PagesRead | None = None,
    ) -> None:
        site = site_of(address)
        if site is None:
            raise OutsideFailed(reason="has no address")
        self._site = site
        self._own_port = own_port
        self._may_go_on = may_go_on
        self._until_s = until_s
        self._read = read or PagesRead()
        self._has_sent = False
        self._client = outside_client()
        self._origin = site.origin
        self._allowed = frozenset((site.origin, *also))
        self.start = site.address

    def close(self) -> None:
        """Ends its connections."""
        self._client.close()

    def change_page(self) -> Visited:
        """Where the site changes passwords: by the well-known address, else the stored one."""
        found = self._get(self._origin + WELL_KNOWN)
        return found if found.status < 400 else self._get(self.start)

    def change_address(self) -> str:
        """The address to be opened by hand: the well-known one where the site tells pages that are
        there from those that are not (section 4.2 of the draft), else the stored one.
        """
        found = self._get(self._origin + WELL_KNOWN)
        if found.status < 400 and self._get(self._origin + NOT_THERE).status >= 400:
            return self._origin + WELL_KNOWN
        return self.start

    def signs_in(self, user_name: str, secret: str, code: Callable[[], str] | None) -> bool:
        """Whether these open the site: whether its change form stands behind them.

        Raises `FormNotUnderstood` where the site asks for something else.
        """
        page = self.change_page()
        if page.page.change_form is not None:
            raise FormNotUnderstood(reason="shows its change form without a sign-in")
        self.sign_in(page, user_name, secret, code)
        return self.change_page().page.change_form is not None

    def turns_away(self, user_name: str, wrong: str) -> bool:
        """Whether a secret that cannot be right does not open it, by the signs of `signs_in`; no
        code is sent with it, though a form may ask for one beside the password.
        """
        return not self.signs_in(user_name, wrong, _no_code)

    def sign_in(
        self, at: Visited, user_name: str, secret: str, code: Callable[[], str] | None
    ) -> Visited:
        """Fills the sign-in form of a page, and what follows it."""
        if at.page.sign_in_form is None and at.page.user_name_form is not None:
            at = self._send(at, at.page.user_name_form, {USER_NAME: user_name})
        form = at.page.sign_in_form
        if form is None:
            raise FormNotUnderstood(reason="has no sign-in form that is told by tokens")
        at = self._send(at, form, {USER_NAME: user_name, CURRENT: secret} | _coded(form, code))
        if at.status in _NO_ANSWER or at.status >= 500:
            raise OutsideFailed(reason="asks to wait, or has locked the account")
        if at.page.code_form is not None and at.page.sign_in_form is None:
            if code is None:
                raise FormNotUnderstood(reason="asks for a code whose key is not here")
            if code is _no_code:
                raise FormNotUnderstood(reason="asks for a code even where the secret is wrong")
            at = self._send(at, at.page.code_form, {CODE: code()})
        return at

    def change(
        self, at: Visited, user_name: str, current: str, new: str, code: Callable[[], str] | None
    ) -> Visited:
        """Fills and sends the change form of a page."""
        values = {USER_NAME: user_name, CURRENT: current, NEW: new}
        form = _change_form(at)
        return self._send(at, form, values | _coded(form, code))

    def require_sendable(self, at: Visited, *, has_code: bool) -> None:
        """Raises `FormNotUnderstood` where the change form of a page cannot be sent as it is."""
        form = _change_form(at)
        filled = dict.fromkeys((USER_NAME, CURRENT, NEW, *((CODE,) if has_code else ())), "x")
        form.filled(filled)
        self._require_own(_target(at, form))

    def _get(self, address: str) -> Visited:
        return self._follow("GET", address, None, referer="")

    def _send(self, at: Visited, form: SiteForm, values: dict[str, str]) -> Visited:
        body = urlencode(form.filled(values)).encode("ascii")
        self._has_sent = True
        return self._follow("POST", _target(at, form), body, at.address)

    def _follow(self, method: str, address: str, body: bytes | None, referer: str) -> Visited:
        for _ in range(REDIRECTS_MOST):
            address = self._require_own(address)
            status, place, text = self._once(method, address, body, referer)
            if status not in _REDIRECTS or not place:
                return Visited(address, status, self._page(text))
            if status in (307, 308) and body is not None:
                raise FormNotUnderstood(reason="sends the form on to another address")
            address, method, body = _joined(address, place), "GET", None
        raise FormNotUnderstood(reason="sends from address to address without an end")

    def _once(
        self, method: str, address: str, body: bytes | None, referer: str
    ) -> tuple[int, str, bytes]:
        import httpx

        self._look()
        target, headers = at_loopback(address)
        if body is not None:
            headers |= {
                "content-type": "application/x-www-form-urlencoded",
                "origin": _origin_of(referer) or self._origin,
                "referer": referer,
            }
        try:
            sent = self._client.stream(method, target, content=body, headers=headers)
            with self._client.looking(self._look), sent as answer:
                text = bytearray()
                for piece in answer.iter_bytes():
                    text += piece
                    if len(text) > PAGE_MOST:
                        raise OutsideFailed(reason="sent a page that is too large")
                return answer.status_code, answer.headers.get("location", ""), bytes(text)
        except httpx.TimeoutException:
            raise OutsideFailed(reason="did not answer in time") from None
        except httpx.RemoteProtocolError as error:
            if "location header" in str(error):
                raise FormNotUnderstood(reason="leads to an address that is none") from None
            raise OutsideFailed(reason="could not be reached") from None
        except (httpx.HTTPError, httpx.InvalidURL):
            raise OutsideFailed(reason="could not be reached") from None

    def _page(self, body: bytes) -> SitePage:
        return read_page(body) if self._has_sent else self._read.page(body)

    def _look(self) -> None:
        """In every wait and every read. Raises `DriveStopped`."""
        if not self._may_go_on():
            raise DriveStopped(reason="was left because you stopped it")
        if time.monotonic() > self._until_s:
            raise DriveStopped(reason="took too long")

    def _require_own(self, address: str) -> str:
        """What a browser would open by it, where that is of the site."""
        try:
            there: Site | None = site_of(address)
        except FieldInvalid:
            there = None
        if there is None or there.domain != self._site.domain:
            raise FormNotUnderstood(reason="leads away from its own domain")
        if there.scheme != "https" and not there.is_loopback:
            raise FormNotUnderstood(reason="leads to an address without https")
        if there.is_loopback and there.port == self._own_port:
            raise FormNotUnderstood(reason="leads to this application")
        if there.origin not in self._allowed:
            # Not named: a site may put what it was sent into the name of a host.
            raise FormNotUnderstood(reason=f"leads to another origin than {self._origin}")
        return there.address


def _origin_of(address: str) -> str:
    site = site_of(address)
    return site.origin if site is not None else ""


def _joined(base: str, place: str) -> str:
    try:
        return address_from(base, place)
    except FieldInvalid:
        raise FormNotUnderstood(reason="leads to an address that is none") from None


def _target(at: Visited, form: SiteForm) -> str:
    return _joined(at.address, form.action or at.address)


def _change_form(at: Visited) -> SiteForm:
    if at.page.change_form is None:
        raise FormNotUnderstood(reason="has no change form that is told by tokens")
    return at.page.change_form


def _coded(form: SiteForm, code: Callable[[], str] | None) -> dict[str, str]:
    """The code, where a form asks for it beside the passwords."""
    return {CODE: code()} if code is not None and form.has(CODE) else {}


def _no_code() -> str:
    return ""


def read_page(body: bytes) -> SitePage:
    """The forms of a page, read by a child under limits. Raises `FormNotUnderstood`."""
    try:
        return SitePage.of(run_limited(_FORM_READER, body, within_s=READING_S, alone=True))
    except (ChildFailed, KeyError):
        raise FormNotUnderstood(reason="sent a page that cannot be read") from None
