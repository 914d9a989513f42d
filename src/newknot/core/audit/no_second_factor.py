"""No second factor: the site offers one, and none is recorded here or said to be elsewhere."""

from collections.abc import Iterator, Sequence

from newknot.core.audit.audited import Measured
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.login import SecondFactor

_MISSING = {
    SecondFactor.NONE: "none is recorded here",
    SecondFactor.SETTING_UP: "its set-up was begun, and no code was accepted yet",
}


def no_second_factor(logins: Sequence[Measured]) -> Iterator[Finding]:
    """One finding for each login that could have a second factor and has none."""
    for one in logins:
        login = one.login
        if not login.offers_second_factor:
            continue
        missing = _MISSING.get(login.second_factor)
        if missing is not None:
            yield Finding(
                FindingKind.NO_SECOND_FACTOR,
                login.login_id,
                f"{login.policy_name} offers a second factor: {missing}",
                guess_number_log10=one.guess_number_log10,
            )
