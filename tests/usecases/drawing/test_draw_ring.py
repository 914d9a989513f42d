"""Draws of a session: as many as are kept, what lies aside, and nothing after a lock."""

from datetime import UTC, datetime

import pytest

from newknot.core.login import Origin
from newknot.core.secret import Secret
from newknot.usecases.drawing.draw_ring import DrawFacts, DrawRing
from newknot.usecases.errors import DrawUnknown

NOW = datetime(2026, 11, 25, 12, tzinfo=UTC)
FACTS = DrawFacts("characters", Origin("drawn", 90.0), 27.0)


def test_what_lies_aside_is_of_the_ring_once_it_is_asked_for_and_a_lock_clears_both() -> None:
    aside = DrawRing(4)
    ring = DrawRing(2, aside=aside)
    taken, left = (aside.add(Secret(text), FACTS, now=NOW).draw_id for text in ("rope", "plank"))
    assert ring.get(taken).secret == Secret("rope") == ring.get(taken).secret
    assert ([one[0] for one in ring.listed()], [one[0] for one in aside.listed()]) == (
        [taken],
        [left],
    )
    ring.clear()
    assert ring.listed() == aside.listed() == []
    for gone in (taken, left):
        with pytest.raises(DrawUnknown):
            ring.get(gone)
