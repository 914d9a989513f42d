"""What was written since a moment is told whole, or not at all."""

import pytest

from newknot.store import change_log
from newknot.store.change_log import ChangeLog
from newknot.store.manifest import Label

LOGIN, POLICY = (Label.LOGIN,), (Label.POLICY,)
A, B = b"a" * 16, b"b" * 16


def test_what_was_written_after_a_counter_by_its_kind() -> None:
    log = ChangeLog()
    log.begin(7)
    log.note(8, [(Label.LOGIN, A), (Label.POLICY, B)])
    log.note(9, [(Label.LOGIN, B)])
    assert log.since(LOGIN, 7) == {A.hex(), B.hex()} and log.since(LOGIN, 8) == {B.hex()}
    assert log.since(POLICY, 7) == {B.hex()}
    assert log.since(POLICY, 8) == log.since(LOGIN, 9) == set()
    assert log.since((*LOGIN, *POLICY), 6) is None
    log.begin(9)
    assert log.since(LOGIN, 8) is None and log.since(LOGIN, 9) == set()


def test_what_was_forgotten_is_not_told_as_nothing(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(change_log, "KEPT_MOST", 3)
    log = ChangeLog()
    for counter in range(1, 6):
        log.note(counter, [(Label.LOGIN, bytes([counter] * 16))])
    assert log.since(LOGIN, 1) is None
    assert log.since(LOGIN, 2) == {bytes([n] * 16).hex() for n in (3, 4, 5)}
