"""The interface's files: one page with a fresh nonce, and hashed assets."""

import secrets
from pathlib import Path

from fastapi import FastAPI, Request
from fastapi.responses import FileResponse, HTMLResponse, PlainTextResponse, Response
from starlette.staticfiles import StaticFiles

NONCE_MARK = "__CSP_NONCE__"


WORKER_ENDS = """\
self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (event) => event.waitUntil(
  self.registration.unregister()
    .then(() => self.clients.matchAll({ type: "window" }))
    .then((windows) => windows.forEach((one) => one.navigate(one.url)))
));
"""
"""What whoever held this port before may have left in the browser ends itself, and the page is then
asked from here (W3C Service Workers: an update is asked for by its script's address).
"""


def content_security_policy(nonce: str) -> str:
    """No inline script, no inline style attribute, nothing from elsewhere."""
    return "; ".join(
        (
            "default-src 'none'",
            "script-src 'self'",
            f"style-src 'self' 'nonce-{nonce}'",
            "style-src-attr 'none'",
            "img-src 'self' data: blob:",
            "font-src 'self'",
            "connect-src 'self'",
            "base-uri 'none'",
            "form-action 'none'",
            "frame-ancestors 'none'",
            "require-trusted-types-for 'script'",
            "trusted-types 'none'",
        )
    )


def install(app: FastAPI, folder: Path) -> None:
    """Serves a built interface; every path that is no file is the one page."""
    page = folder / "index.html"
    assets = folder / "assets"
    if assets.is_dir():
        app.mount("/assets", StaticFiles(directory=assets))

    @app.get("/entrance.css", include_in_schema=False)
    def entrance() -> Response:
        """What the page looks like before any script."""
        return FileResponse(folder / "entrance.css", media_type="text/css")

    @app.get("/{path:path}", include_in_schema=False)
    def any_page(path: str, request: Request) -> Response:
        if request.headers.get("service-worker") == "script":
            return Response(WORKER_ENDS, media_type="text/javascript")
        if not page.is_file():
            return PlainTextResponse("The interface is not built: run ./run demo", 503)
        nonce = secrets.token_urlsafe(16)
        html = page.read_text("utf-8").replace(NONCE_MARK, nonce)
        headers = {"Content-Security-Policy": content_security_policy(nonce)}
        return HTMLResponse(html, headers=headers)
