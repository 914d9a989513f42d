"""No second factor: the site offers one, and none is recorded here or said to be elsewhere."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

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
        if login.offers_second_factor:
            found = no_second_factor_of(login.login_id, login.policy_name, login.second_factor)
            if found is not None:
                yield replace(found, guess_number_log10=one.guess_number_log10)


def no_second_factor_of(login_id: str, site: str, second_factor: SecondFactor) -> Finding | None:
    """What is to be said of one login at a site that offers a second factor."""
    missing = _MISSING.get(second_factor)
    if missing is None:
        return None
    evidence = f"{site} offers a second factor: {missing}"
    return Finding(FindingKind.NO_SECOND_FACTOR, login_id, evidence)
