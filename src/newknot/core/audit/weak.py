"""Weak: a chosen or short secret that a known attack budget covers."""

from collections.abc import Iterator, Sequence

from newknot.core.audit.audited import Measured, finding_of
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.strength.budgets import weakest_fallen

WEAK_BELOW_LOG10 = 10.0
_FALLS = {
    "at_form": "falls at the sign-in form itself",
    "stolen_slow": "falls with the site's file, even well hashed",
}


def weak(logins: Sequence[Measured]) -> Iterator[Finding]:
    """One finding for each secret within 10^10 guesses, with what it is made of."""
    for one in logins:
        guesses = one.guess_number_log10
        if guesses is None or guesses > WEAK_BELOW_LOG10:
            continue
        budget = weakest_fallen(guesses)
        assert budget is not None
        made_of = one.reasons or "too short a draw"
        evidence = f"{made_of[:1].upper()}{made_of[1:]}"
        yield finding_of(one, FindingKind.WEAK, evidence, _FALLS[budget.code])
