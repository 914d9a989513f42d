"""First letters of a line that the user remembers: a chosen text, with no generator's bits."""

import re

from newknot.core.errors import FieldInvalid

LINE_LIMIT = 1_000


def initials(line: str) -> str:
    """The first letter of each word as written, numbers whole, marks kept where they stand.

    Raises `FieldInvalid` where nothing comes of it.
    """
    if len(line) > LINE_LIMIT:
        raise FieldInvalid("line", f"is longer than {LINE_LIMIT:,} characters")
    parts = re.findall(r"\d+|[^\W\d_](?:[\w'’]*)|[^\w\s]", line)
    text = "".join(part if not part[0].isalpha() else part[0] for part in parts)
    if not text:
        raise FieldInvalid("line", "has no words")
    return text
