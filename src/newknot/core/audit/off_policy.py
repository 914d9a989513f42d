"""Off policy: a secret that its site's rules forbid, or far below what the site would take."""

from collections.abc import Iterator, Sequence

from newknot.core.audit.audited import Measured
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.audit.weak import WEAK_BELOW_LOG10
from newknot.core.policy import SitePolicy
from newknot.core.policy.kept_text import kept_text
from newknot.core.secret import Secret
from newknot.core.strength.budgets import weakest_fallen

ROOM_LEAST, USED_AT_MOST, MODEST_BELOW_LOG10 = 20, 0.5, 14.0
"""Far below: the site takes 20 characters or more, half of them or fewer are used, and the secret
falls within 10^14 guesses (within 10^10 it is weak, and found as such).
"""


def off_policy(logins: Sequence[Measured]) -> Iterator[Finding]:
    """One finding for each login whose site has a policy that its secret does not meet or use."""
    for one in logins:
        login = one.login
        if login.policy is not None and login.secret is not None:
            guesses = one.guess_number_log10
            found = off_policy_of(
                login.login_id, login.secret, login.policy, site=login.policy_name, guesses=guesses
            )
            if found is not None:
                yield found


def off_policy_of(
    login_id: str, secret: Secret, policy: SitePolicy, *, site: str, guesses: float | None
) -> Finding | None:
    """What is to be said of one login's secret by its site's rules. guesses: base-10 log."""
    text = secret.reveal()
    broken = policy.violations(text) if text else ()
    evidence = ""
    if broken:
        evidence = f"Breaks a rule of {site}: {broken[0].says}"
    elif guesses is not None and WEAK_BELOW_LOG10 < guesses < MODEST_BELOW_LOG10:
        room, used = policy.max_length, len(kept_text(policy, text))
        fallen = weakest_fallen(guesses)
        if room >= ROOM_LEAST and used <= room * USED_AT_MOST and fallen is not None:
            evidence = f"{site} takes {room} characters: these {used} fall to “{fallen.label}”"
    if not evidence:
        return None
    return Finding(FindingKind.OFF_POLICY, login_id, evidence, guess_number_log10=guesses)
