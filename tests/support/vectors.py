"""Tables of examples."""

import json
from pathlib import Path
from typing import Any

VECTORS = Path(__file__).parents[1] / "vectors"


def vectors(name: str) -> list[tuple[str, ...]]:
    """The rows of a table, their fields by tab; its first line says what they are."""
    lines = (VECTORS / name).read_text("utf-8").removesuffix("\n").split("\n")[1:]
    return [tuple(line.split("\t")) for line in lines]


def examples(name: str) -> list[Any]:
    """The rows of a table in JSON, each a list."""
    found: list[Any] = json.loads((VECTORS / name).read_text("utf-8"))
    return found
