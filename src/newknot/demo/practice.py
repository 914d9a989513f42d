"""The practice sites as a child process, and sign-ups there over HTTP like anyone's."""

import http.client
import subprocess
import sys
import time
from pathlib import Path
from types import TracebackType
from urllib.parse import urlencode

HOSTS = tuple(
    f"{name}.localhost"
    for name in (
        *("gantryrentals", "lumensociety", "papertape", "northpier", "wardrobestore"),
        *("slatehouse", "cellarbar", "keylight", "harbourpost", "mailtray"),
    )
)


class PracticeSitesFailed(OSError):
    """The practice sites did not start, or took no account."""


class PracticeSites:
    """Started on entering, stopped on leaving."""

    def __init__(self, folder: Path, *, port: int) -> None:
        self.port = port
        self._accounts = folder / "practice-sites.sqlite"
        self.ranges = folder / "held-elsewhere.txt"
        self.notices = folder / "notices.json"
        self._process: subprocess.Popen[bytes] | None = None

    def address(self, name: str, path: str = "") -> str:
        """Of a stand-in."""
        return f"http://{name}.localhost:{self.port}{path}"

    @property
    def listing(self) -> str:
        """Their addresses in a line."""
        return "  ".join(f"http://{host}:{self.port}/" for host in HOSTS)

    def __enter__(self) -> "PracticeSites":
        self._accounts.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
        command = [sys.executable, "-m", "newknot.standins", "--port", str(self.port)]
        command += ["--accounts", str(self._accounts), "--while-input-is-open"]
        for option, path in (("--ranges", self.ranges), ("--notices", self.notices)):
            command += [option, str(path)] if path.exists() else []
        # It ends with us: its input closes when this process is gone, however it went.
        self._process = subprocess.Popen(command, stdin=subprocess.PIPE)
        for _ in range(100):
            if self._process.poll() is not None:
                break
            try:
                self._request("GET", HOSTS[0], "/", {})
                return self
            except OSError:
                time.sleep(0.1)
        raise PracticeSitesFailed(None, f"the practice sites did not start on port {self.port}")

    def __exit__(
        self,
        kind: type[BaseException] | None,
        error: BaseException | None,
        traceback: TracebackType | None,
    ) -> None:
        if self._process is not None:
            self._process.terminate()
            self._process.wait(timeout=5)

    def sign_up(self, host: str, user_name: str, password: str) -> None:
        """An account at a practice site; one that is there already stays as it is."""
        fields = {"user_name": user_name, "new_password": password, "again": password}
        status = self._request("POST", host, "/sign-up", fields)
        if status not in (303, 422):
            raise PracticeSitesFailed(None, f"{host} answered {status}")

    def _request(self, method: str, host: str, path: str, fields: dict[str, str]) -> int:
        connection = http.client.HTTPConnection("127.0.0.1", self.port, timeout=5)
        try:
            headers = {
                "Host": f"{host}:{self.port}",
                "Content-Type": "application/x-www-form-urlencoded",
            }
            connection.request(method, path, urlencode(fields) if fields else None, headers)
            response = connection.getresponse()
            response.read()
            return response.status
        finally:
            connection.close()
