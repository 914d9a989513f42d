"""Off policy: a secret that its site's rules forbid, or far below what the site would take."""

from collections.abc import Iterator, Sequence

from newknot.core.audit.audited import Measured
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.audit.weak import WEAK_BELOW_LOG10
from newknot.core.policy.kept_text import kept_text
from newknot.core.strength.budgets import weakest_fallen

ROOM_LEAST, USED_AT_MOST, MODEST_BELOW_LOG10 = 20, 0.5, 14.0
"""Far below: the site takes 20 characters or more, half of them or fewer are used, and the secret
falls within 10^14 guesses (within 10^10 it is weak, and found as such).
"""


def off_policy(logins: Sequence[Measured]) -> Iterator[Finding]:
    """One finding for each login whose site has a policy that its secret does not meet or use."""
    for one in logins:
        login, guesses = one.login, one.guess_number_log10
        if login.policy is None or login.secret is None or not len(login.secret):
            continue
        broken = login.policy.violations(login.secret.reveal())
        evidence = ""
        if broken:
            evidence = f"Breaks a rule of {login.policy_name}: {broken[0].says}"
        elif guesses is not None and WEAK_BELOW_LOG10 < guesses < MODEST_BELOW_LOG10:
            room = login.policy.max_length
            used = len(kept_text(login.policy, login.secret.reveal()))
            fallen = weakest_fallen(guesses)
            if room >= ROOM_LEAST and used <= room * USED_AT_MOST and fallen is not None:
                evidence = (
                    f"{login.policy_name} takes {room} characters: these {used} "
                    f"fall to “{fallen.label}”"
                )
        if evidence:
            yield Finding(
                FindingKind.OFF_POLICY, login.login_id, evidence, guess_number_log10=guesses
            )
