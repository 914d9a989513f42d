"""The one rule for texts at the door: none holds half of a character pair (UTF-16, RFC 8259 §8.2).

JSON can spell such a half; no file, no cipher and no other program can hold it.
"""

import json
import re
from collections.abc import Iterator
from typing import Any

from fastapi import Request

from newknot.core.errors import FieldInvalid

_SPELLED = re.compile(rb"\\u[dD][89a-fA-F]")
_HALF = re.compile("[\ud800-\udfff]")
_NAME = re.compile("[a-z][a-z0-9_]*")


async def require_whole_text(request: Request) -> None:
    """Raises `FieldInvalid`, naming the field, where a JSON body has a half in any text or key."""
    body = await request.body()
    if not _SPELLED.search(body):
        return
    try:
        document = json.loads(body)
    except (ValueError, RecursionError):
        return
    for place in _halves(document):
        raise FieldInvalid(".".join(place), "holds half of a character pair")


def _halves(document: Any) -> Iterator[list[str]]:
    """Where each is. What is no name of a field is the sender's text, and not named."""
    waiting: list[tuple[list[str], Any]] = [([], document)]
    while waiting:
        place, value = waiting.pop()
        if isinstance(value, str):
            if _HALF.search(value):
                yield place
        elif isinstance(value, list):
            waiting += [([*place, str(i)], one) for i, one in enumerate(value)]
        elif isinstance(value, dict):
            for key, one in value.items():
                if _HALF.search(key):
                    yield place
                waiting.append(([*place, key] if _NAME.fullmatch(key) else place, one))
