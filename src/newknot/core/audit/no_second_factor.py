"""No second factor: the site offers one, and none is recorded here or said to be elsewhere."""

from collections.abc import Iterator, Sequence

from newknot.core.audit.audited import Measured
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.login import SecondFactor


def no_second_factor(logins: Sequence[Measured]) -> Iterator[Finding]:
    """One finding for each login that could have a second factor and has none."""
    for one in logins:
        login = one.login
        if login.offers_second_factor and login.second_factor is SecondFactor.NONE:
            yield Finding(
                FindingKind.NO_SECOND_FACTOR,
                login.login_id,
                f"{login.policy_name} offers a second factor: none is recorded here",
                guess_number_log10=one.guess_number_log10,
            )
