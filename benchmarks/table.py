"""How figures are printed and times are taken."""

import statistics
import time
from collections.abc import Callable

_ADDITIONS = 100_000


def ms(seconds: float) -> str:
    """Seconds as milliseconds."""
    return f"{seconds * 1000:,.1f} ms"


def row(what: str, figure: str, bound: str = "") -> None:
    """One line: what, its figure, how fast the machine is just then, the aim.

    A shared machine can be four times slower in one minute than in another; by the time that
    an addition takes, figures of two runs are compared.
    """
    print(f"{what:<66} {figure:>14}  {_addition_ns():>4.0f} ns  {bound}", flush=True)


def _addition_ns() -> float:
    """What one turn of a loop that adds costs an interpreter: the median of five rounds."""
    rounds = []
    for _ in range(5):
        total, began = 0, time.perf_counter()
        for i in range(_ADDITIONS):
            total += i
        rounds.append((time.perf_counter() - began) / _ADDITIONS * 1e9)
    return statistics.median(rounds)


def timed(act: Callable[..., object], *arguments: object) -> float:
    """Seconds that an act takes."""
    began = time.perf_counter()
    act(*arguments)
    return time.perf_counter() - began
