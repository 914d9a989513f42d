"""The history of secrets as CSV: when each served and how long it was, never what it was."""

import io
from collections.abc import Iterable, Sequence

from defusedcsv import csv

COLUMNS = ("login", "user name", "field", "from", "until", "served", "made", "characters")


def write_history(rows: Iterable[Sequence[str]]) -> bytes:
    """A CSV file (RFC 4180, UTF-8) of rows with these columns."""
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(COLUMNS)
    writer.writerows(rows)
    return out.getvalue().encode("utf-8")
