"""A service that drips byte after byte: its answer has one time, and is left when one stops."""

import socket
import threading
import time
from collections.abc import Iterator

import pytest

from newknot.core.rotation.site_form import FormNotUnderstood
from newknot.outside import reaching
from newknot.outside.driven_site import DrivenSite, DriveStopped
from newknot.outside.range_service import RangeService
from newknot.outside.reaching import OutsideFailed, fetch, outside_client
from tests.conftest import wait_until

HEAD = b"HTTP/1.1 200 OK\r\nContent-Type: text/html\r\n"


class Dripping:
    """A server that sends a beginning at once, and then one byte at a time for as long as it is
    read. served: how many connections it had.
    """

    def __init__(self, begins: bytes, drop: bytes) -> None:
        self._begins, self._drop = begins, drop
        self._ended = threading.Event()
        self._socket = socket.create_server(("127.0.0.1", 0))
        self.port: int = self._socket.getsockname()[1]
        self.served = 0
        threading.Thread(target=self._serve, daemon=True).start()

    def _serve(self) -> None:
        while not self._ended.is_set():
            try:
                connection, _ = self._socket.accept()
            except OSError:
                return
            self.served += 1
            threading.Thread(target=self._drip, args=(connection,), daemon=True).start()

    def _drip(self, connection: socket.socket) -> None:
        try:
            with connection:
                connection.recv(65_536)
                connection.sendall(self._begins)
                while not self._ended.wait(0.02):
                    connection.sendall(self._drop)
        except OSError:
            return

    def close(self) -> None:
        """Every drip ends."""
        self._ended.set()
        self._socket.close()


WAYS = {
    "silent": (b"", b""),
    "within its head": (HEAD, b"x"),
    "within its body": (HEAD + b"Content-Length: 1000000\r\n\r\n", b" "),
}


@pytest.fixture(params=WAYS, ids=list(WAYS))
def dripping(request: pytest.FixtureRequest) -> Iterator[Dripping]:
    server = Dripping(*WAYS[request.param])
    yield server
    server.close()


def test_the_whole_answer_has_one_time(dripping: Dripping, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(reaching, "ANSWER_S", 0.5)
    with outside_client() as client, pytest.raises(OutsideFailed) as caught:
        fetch(client, f"http://127.0.0.1:{dripping.port}/", most_bytes=1 << 20)
    assert caught.value.data == {"reason": "did not answer in time"}


def test_it_is_left_when_one_stops(dripping: Dripping) -> None:
    with outside_client() as client, pytest.raises(OutsideFailed) as caught:
        fetch(
            client,
            f"http://127.0.0.1:{dripping.port}/",
            most_bytes=1 << 20,
            may_go_on=lambda: not dripping.served,
        )
    assert "stopped" in str(caught.value.data["reason"])


def test_a_list_elsewhere_is_asked_nothing_more_once_the_check_is_stopped(
    dripping: Dripping,
) -> None:
    service = RangeService(
        f"http://127.0.0.1:{dripping.port}", may_go_on=lambda: not dripping.served
    )
    with pytest.raises(OutsideFailed):
        service.about()
    service.close()
    assert dripping.served == 1


@pytest.mark.parametrize("stopped", [True, False])
def test_a_driven_site_is_left_by_stop_and_by_its_bound(dripping: Dripping, stopped: bool) -> None:
    began = time.monotonic()
    visit = DrivenSite(
        f"http://127.0.0.1:{dripping.port}/",
        own_port=1,
        may_go_on=lambda: not (stopped and dripping.served),
        until_s=began + (60 if stopped else 3),
    )
    with pytest.raises((DriveStopped, FormNotUnderstood)) as caught:
        visit.change_page()
    visit.close()
    assert isinstance(caught.value, DriveStopped)
    wait_until(lambda: dripping.served == 1)
