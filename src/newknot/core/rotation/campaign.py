"""A campaign: logins to be rotated one after another, over days if need be."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from newknot.core.audit.mailboxes import Reset


@dataclass(frozen=True, slots=True)
class Campaign:
    """login_ids in the order of work. What is done is derived: a secret newer than begun_at."""

    campaign_id: str
    begun_at: datetime
    login_ids: tuple[str, ...]


def order_of_work(login_ids: Sequence[str], resets: Sequence[Reset]) -> tuple[str, ...]:
    """Each login once: first the mailboxes that can reset most of the others, whose thief could
    undo every later change, then the rest as given.
    """
    chosen = dict.fromkeys(login_ids)
    pulls = Counter(r.by for r in resets if r.by in chosen and r.of in chosen)
    return tuple(sorted(chosen, key=lambda login_id: -pulls[login_id]))
