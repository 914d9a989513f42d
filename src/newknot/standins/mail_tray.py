"""The mail tray: every mail of the practice sites, as a page and as JSON."""

import re
from dataclasses import asdict
from html import escape

from starlette.applications import Starlette
from starlette.requests import Request
from starlette.responses import HTMLResponse, JSONResponse, Response
from starlette.routing import Route

from newknot.standins.accounts import Accounts
from newknot.standins.pages import STYLE

HOST = "mailtray.localhost"
_LINK = re.compile(r"http://\S+")


def mail_app(accounts: Accounts) -> Starlette:
    """The tray's two addresses."""

    async def page(request: Request) -> Response:
        mails = "".join(
            f"<article><h3>{escape(m.subject)}</h3><p>to {escape(m.user_name)} from "
            f"{escape(m.host)}, {escape(m.sent_at)}</p><p>{_linked(m.body)}</p></article><hr>"
            for m in accounts.mails()
        )
        return HTMLResponse(
            '<!doctype html><html lang="en"><meta charset="utf-8"><title>Mail tray</title>'
            f"<style>{STYLE}</style><header><h1>Mail tray</h1><p>What the practice sites sent</p>"
            f"</header><main>{mails or '<p>No mail yet.</p>'}</main></html>"
        )

    async def listing(request: Request) -> Response:
        return JSONResponse([asdict(mail) for mail in accounts.mails()])

    return Starlette(routes=[Route("/", page), Route("/mails.json", listing)])


def _linked(body: str) -> str:
    text = escape(body)
    return _LINK.sub(lambda found: f'<a href="{found[0]}">{found[0]}</a>', text)
