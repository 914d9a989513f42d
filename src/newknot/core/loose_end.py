"""A loose end: a secret that was handed out and belongs to no login yet."""

from dataclasses import dataclass
from datetime import datetime


@dataclass(frozen=True, slots=True)
class LooseEnd:
    """When it was handed out, for which address if any, and its length in characters."""

    loose_end_id: str
    handed_out_at: datetime
    address: str
    length: int
