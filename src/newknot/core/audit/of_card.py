"""What is found of a login's card alone, its secret unseen."""

from collections.abc import Iterator
from datetime import date

from newknot.core.audit.finding import Finding
from newknot.core.audit.no_second_factor import no_second_factor_of
from newknot.core.audit.overdue import overdue_of
from newknot.core.audit.plain_http import plain_http_of
from newknot.core.login import LoginCard
from newknot.core.policy import NamedPolicy
from newknot.core.rotation.due import own_day


def found_of_card(card: LoginCard, named: NamedPolicy | None, today: date) -> Iterator[Finding]:
    """What is found of a login's card alone; named: the policy of its site."""
    found = [plain_http_of(card.login_id, card.address, has_secret=card.has_secret)]
    if named is not None and named.offers_second_factor:
        found.append(no_second_factor_of(card.login_id, named.name, card.second_factor))
    if card.has_secret:
        at_most = named.policy.max_age_days if named is not None else None
        found.append(
            overdue_of(
                card.login_id,
                expires_on=own_day(card),
                since_at=card.secret_since_at,
                max_age_days=at_most,
                today=today,
            )
        )
    yield from (one for one in found if one is not None)
