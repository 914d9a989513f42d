"""Breached: the secret stands in a corpus of breached secrets."""

from collections.abc import Iterator, Sequence
from hashlib import sha1
from typing import Protocol

from newknot.core.audit.audited import Measured
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.breach.six_bytes import CorpusTitle
from newknot.core.breach.times import times_text


class CorpusLookup(Protocol):
    """A corpus that can be asked about SHA-1 digests."""

    @property
    def title(self) -> CorpusTitle:
        """Its name, date and size."""

    def occurrences_many(self, digests: Sequence[bytes], /) -> list[int]:
        """A lower bound of each digest's count; 0 where absent."""


def secret_digest(text: str) -> bytes:
    """The SHA-1 by which corpora name a secret (UTF-8)."""
    return sha1(text.encode("utf-8", "surrogatepass"), usedforsecurity=False).digest()


def breached(logins: Sequence[Measured], corpus: CorpusLookup) -> Iterator[Finding]:
    """One finding for each login whose secret is in the corpus."""
    held = [m for m in logins if m.login.secret is not None and len(m.login.secret)]
    digests = [secret_digest(m.login.secret.reveal()) for m in held if m.login.secret is not None]
    title = corpus.title
    for one, count in zip(held, corpus.occurrences_many(digests), strict=True):
        if count:
            evidence = (
                f"In the corpus, {times_text(count)} ({title.name} of {title.dated_on:%B %Y})"
            )
            yield Finding(
                FindingKind.BREACHED,
                one.login.login_id,
                evidence,
                guess_number_log10=one.guess_number_log10,
            )
