"""The API of a running server over a real connection."""

import http.client
import json
from typing import Any

from tests.conftest import PASSPHRASE
from tests.support.running import Served


class Caller:
    """The API over a real connection, with both halves of a session."""

    def __init__(self, served: Served) -> None:
        self._port = int(served.url.rsplit(":", 1)[1].strip("/"))
        self._connection = http.client.HTTPConnection("127.0.0.1", self._port, timeout=10)
        self._headers = {
            "Origin": f"http://127.0.0.1:{self._port}",
            "Content-Type": "application/json",
        }
        self._headers["knot-session"] = self.call(
            "POST", "vault/unlock", {"passphrase": PASSPHRASE}
        )["token"]

    def call(self, method: str, path: str, body: object = None) -> Any:
        """The answer's document. Raises `OSError` where the server is gone."""
        try:
            sent = None if body is None else json.dumps(body)
            self._connection.request(method, f"/api/{path}", sent, self._headers)
            answer = self._connection.getresponse()
            text = answer.read()
        except http.client.HTTPException as error:
            raise OSError from error
        cookie = answer.getheader("set-cookie")
        if cookie:
            self._headers["Cookie"] = cookie.split(";")[0]
        assert answer.status < 300, text
        return json.loads(text) if text else None

    def secret(self, path: str) -> str:
        """What a call hands out."""
        return str(self.call("POST", path, {"purpose": "copy"})["secret"])
