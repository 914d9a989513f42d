"""How figures are printed and times are taken."""

import random
import time
from collections.abc import Callable
from functools import cache

_PLACES, _STEPS = 1_000_000, 200_000


def ms(seconds: float) -> str:
    """Seconds as milliseconds."""
    return f"{seconds * 1000:,.1f} ms"


def row(what: str, figure: str, bound: str = "") -> None:
    """One line: what, its figure, how fast the machine is just then, the aim.

    A shared machine can be four times slower in one minute than in another; by the time that a
    step through its memory takes, figures of two runs are compared.
    """
    print(f"{what:<66} {figure:>14}  {_step_ns():>5.0f} ns  {bound}", flush=True)


def _step_ns() -> float:
    """What an interpreter takes to go from one place of a large list to the next, far from it."""
    at, path = 0, _path()
    began = time.perf_counter()
    for _ in range(_STEPS):
        at = path[at]
    return (time.perf_counter() - began) / _STEPS * 1e9


@cache
def _path() -> list[int]:
    places = list(range(_PLACES))
    random.Random(1).shuffle(places)  # noqa: S311 - no secret
    path = [0] * _PLACES
    for here, there in zip(places, [*places[1:], places[0]], strict=True):
        path[here] = there
    return path


def timed(act: Callable[..., object], *arguments: object) -> float:
    """Seconds that an act takes."""
    began = time.perf_counter()
    act(*arguments)
    return time.perf_counter() - began
