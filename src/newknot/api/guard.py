"""The gate before every request: exact Host, same origin, bounded bodies; safe headers after."""

import json
from collections.abc import Awaitable, Callable, MutableMapping
from typing import Any

Scope = MutableMapping[str, Any]
Message = MutableMapping[str, Any]
Receive = Callable[[], Awaitable[Message]]
Send = Callable[[Message], Awaitable[None]]
App = Callable[[Scope, Receive, Send], Awaitable[None]]

BODY_LIMIT = 1024 * 1024
PICTURE_BODY_LIMIT = 9 * 1024 * 1024
BUNDLE_BODY_LIMIT = 256 * 1024 * 1024
IMPORT_BODY_LIMIT = 21 * 1024 * 1024
_HEADERS = (
    (b"cache-control", b"no-store"),
    (b"x-content-type-options", b"nosniff"),
    (b"x-frame-options", b"DENY"),
    (b"referrer-policy", b"no-referrer"),
    (b"cross-origin-opener-policy", b"same-origin"),
    (b"cross-origin-resource-policy", b"same-origin"),
    (b"permissions-policy", b"camera=(), microphone=(), geolocation=(), payment=()"),
)


class Guard:
    """Wraps an ASGI application that is reached at 127.0.0.1:port and nowhere else."""

    def __init__(self, app: App, *, port: int) -> None:
        self._app = app
        self._host = f"127.0.0.1:{port}".encode()
        self._origin = b"http://" + self._host

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Answers refusals itself, passes everything else on."""
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return

        async def sealed(message: Message) -> None:
            if message["type"] == "http.response.start":
                present = {name for name, _ in message["headers"]}
                message["headers"] = [
                    *message["headers"],
                    *(header for header in _HEADERS if header[0] not in present),
                ]
            await send(message)

        refusal = self._refusal(scope)
        if refusal is not None:
            await _answer(sealed, *refusal)
            return
        await self._app(scope, receive, sealed)

    def _refusal(self, scope: Scope) -> tuple[int, str] | None:
        headers: dict[bytes, list[bytes]] = {}
        for name, value in scope["headers"]:
            headers.setdefault(name, []).append(value)
        if headers.get(b"host") != [self._host]:
            return 421, "host_refused"
        if not scope["path"].startswith("/api/"):
            return None
        origins = headers.get(b"origin")
        if origins is not None:
            if origins != [self._origin]:
                return 403, "origin_refused"
        elif headers.get(b"sec-fetch-site") != [b"same-origin"]:
            return 403, "origin_refused"
        return self._body_refusal(scope, headers)

    def _body_refusal(
        self, scope: Scope, headers: dict[bytes, list[bytes]]
    ) -> tuple[int, str] | None:
        if b"transfer-encoding" in headers:
            return 411, "length_required"
        lengths = headers.get(b"content-length", [b"0"])
        if len(lengths) != 1 or not lengths[0].isdigit():
            return 400, "length_required"
        limit = BODY_LIMIT
        if scope["path"] == "/api/imports":
            limit = IMPORT_BODY_LIMIT
        elif scope["path"] in ("/api/bundles", "/api/vault/place"):
            limit = BUNDLE_BODY_LIMIT
        elif scope["path"].endswith("/picture"):
            limit = PICTURE_BODY_LIMIT
        return (413, "body_too_large") if int(lengths[0]) > limit else None


async def _answer(send: Send, status: int, code: str) -> None:
    body = json.dumps({"code": code, "data": {}}).encode()
    await send(
        {
            "type": "http.response.start",
            "status": status,
            "headers": [
                (b"content-type", b"application/json"),
                (b"content-length", str(len(body)).encode()),
                (b"connection", b"close"),
            ],
        }
    )
    await send({"type": "http.response.body", "body": body})
