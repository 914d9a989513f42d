"""How figures are printed and times are taken."""

import time
from collections.abc import Callable


def ms(seconds: float) -> str:
    """Seconds as milliseconds."""
    return f"{seconds * 1000:,.1f} ms"


def row(what: str, figure: str, bound: str = "") -> None:
    """One line: what, its figure, the aim."""
    print(f"{what:<62} {figure:>16}   {bound}", flush=True)


def timed(act: Callable[..., object], *arguments: object) -> float:
    """Seconds that an act takes."""
    began = time.perf_counter()
    act(*arguments)
    return time.perf_counter() - began
