"""Like the passphrase: a login's secret from which the vault's own passphrase could be guessed."""

from collections.abc import Iterator, Sequence

from newknot.core.audit.audited import Measured
from newknot.core.audit.finding import Finding, FindingKind

OF_PRESENT = "Like the passphrase of this vault"
OF_EARLIER = "Like an earlier passphrase of this vault, which opens the copies made under it"
"""How a likeness begins; how much is the same stands behind a colon."""


def like_passphrase(logins: Sequence[Measured]) -> Iterator[Finding]:
    """One finding for each login whose secret resembles a passphrase of the vault."""
    for one in logins:
        if one.login.passphrase_likeness:
            yield Finding(
                FindingKind.LIKE_PASSPHRASE,
                one.login.login_id,
                one.login.passphrase_likeness,
                guess_number_log10=one.guess_number_log10,
            )


def is_of_present(finding: Finding) -> bool:
    """Whether it is of the present passphrase, which a new one would make an earlier one."""
    return finding.kind is FindingKind.LIKE_PASSPHRASE and finding.evidence.startswith(OF_PRESENT)
