"""The newest draws of this session, kept in memory so that earlier ones can be stepped back to."""

import secrets
from collections import OrderedDict
from dataclasses import dataclass, field
from threading import Lock

from newknot.core.login import Origin
from newknot.core.secret import Secret
from newknot.usecases.errors import DrawUnknown

KEPT = 20


@dataclass(frozen=True, slots=True)
class Draw:
    """One draw: its text, its bits, and the size of the set it was drawn from.

    is_exact: whether that size is exact or a proven lower bound.
    """

    draw_id: str
    secret: Secret = field(repr=False)
    origin: Origin
    space_size_log10: float
    is_exact: bool


class DrawRing:
    """At most 20 draws; gone at lock."""

    def __init__(self) -> None:
        self._draws: OrderedDict[str, Draw] = OrderedDict()
        self._lock = Lock()

    def add(
        self, secret: Secret, origin: Origin, space_size_log10: float, *, is_exact: bool
    ) -> Draw:
        """Keeps a draw, letting the oldest go."""
        draw = Draw(secrets.token_hex(16), secret, origin, space_size_log10, is_exact)
        with self._lock:
            self._draws[draw.draw_id] = draw
            while len(self._draws) > KEPT:
                self._draws.popitem(last=False)
        return draw

    def get(self, draw_id: str) -> Draw:
        """A kept draw. Raises `DrawUnknown`."""
        with self._lock:
            try:
                return self._draws[draw_id]
            except KeyError:
                raise DrawUnknown() from None

    def before(self, draw_id: str) -> Draw:
        """The draw before another. Raises `DrawUnknown` where there is none."""
        with self._lock:
            ids = list(self._draws)
            if draw_id not in self._draws or ids.index(draw_id) == 0:
                raise DrawUnknown()
            return self._draws[ids[ids.index(draw_id) - 1]]

    def drop(self, draw_id: str) -> None:
        """Lets one go, if it is still kept."""
        with self._lock:
            self._draws.pop(draw_id, None)

    def clear(self) -> None:
        """Lets all go."""
        with self._lock:
            self._draws.clear()
