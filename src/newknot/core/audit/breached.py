"""Breached: the secret stands in a corpus of breached secrets."""

from collections.abc import Iterator, Sequence
from hashlib import sha1
from typing import Protocol

from newknot.core.audit.audited import AuditedLogin, Measured, finding_of
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.breach.six_bytes import CorpusTitle
from newknot.core.breach.times import times_text


class CorpusLookup(Protocol):
    """A corpus that can be asked about SHA-1 digests."""

    @property
    def title(self) -> CorpusTitle:
        """Its name, date and size."""

    def occurrences_many(self, digests: Sequence[bytes], /) -> Sequence[int | None]:
        """A lower bound of each digest's count; 0 where absent; None where it was not checked."""


Hit = tuple[CorpusTitle, int, bool]
"""A corpus, a lower bound of how often it holds the secret, and whether that is of what the site
keeps of it alone.
"""


def secret_digest(text: str) -> bytes:
    """The SHA-1 by which corpora name a secret (UTF-8)."""
    return sha1(text.encode("utf-8", "surrogatepass"), usedforsecurity=False).digest()


def breached(
    logins: Sequence[Measured], hits: dict[tuple[str, str], list[Hit]]
) -> Iterator[Finding]:
    """One finding for each login whose secret is in a corpus. hits: by the key of the secret."""
    for one in logins:
        if told := hits.get(key_of(one.login)):
            found = sorted(told, key=lambda hit: (hit[2], -hit[1]))
            yield finding_of(one, FindingKind.BREACHED, _evidence(found))


def key_of(login: AuditedLogin) -> tuple[str, str]:
    """Which secret of which login."""
    return login.login_id, login.field


def _evidence(found: Sequence[Hit]) -> str:
    title, count, of_kept = found[0]
    which = "What its site keeps of it is in the corpus" if of_kept else "In the corpus"
    said = f"{which}{_often(title, count)}"
    others = [f"{other.name} of {other.dated_on:%B %Y}" for other, *_ in found[1:]]
    return f"{said}, also in {', '.join(others)}" if others else said


def _often(title: CorpusTitle, count: int) -> str:
    """As the list knows it: not at all, the number itself, or the powers of two around it."""
    named = f"{title.name} of {title.dated_on:%B %Y}"
    if not title.has_counts:
        return f" ({named}, a list without counts)"
    if title.count_sum:
        return f", {times_text(count)} ({named})"
    return f", {count:,} times ({named})" if count > 1 else f", once ({named})"
