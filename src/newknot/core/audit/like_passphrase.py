"""Like the passphrase: a login's secret from which the vault's own passphrase could be guessed."""

from collections.abc import Iterator, Sequence

from newknot.core.audit.audited import Measured
from newknot.core.audit.finding import Finding, FindingKind


def like_passphrase(logins: Sequence[Measured]) -> Iterator[Finding]:
    """One finding for each login whose secret resembles a passphrase of the vault."""
    for one in logins:
        if one.login.passphrase_likeness:
            yield Finding(
                FindingKind.LIKE_PASSPHRASE,
                one.login.login_id,
                f"Like the passphrase of this vault: {one.login.passphrase_likeness}",
                guess_number_log10=one.guess_number_log10,
            )
