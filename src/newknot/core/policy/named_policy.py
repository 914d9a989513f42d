"""A site policy with its name, the sites it is for, and where it was learnt."""

from dataclasses import dataclass
from datetime import datetime

from newknot.core.policy.site_policy import SitePolicy


@dataclass(frozen=True, slots=True)
class NamedPolicy:
    """domains: registrable domains. source: `typed`, `form`, `refusal` or `file`.

    offers_second_factor: whether the sites are known to offer one.
    """

    policy_id: str
    name: str
    domains: tuple[str, ...]
    policy: SitePolicy
    source: str
    changed_at: datetime
    offers_second_factor: bool = False
