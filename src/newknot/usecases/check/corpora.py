"""The corpora that secrets are held against: files of this machine, and a service where used."""

from collections.abc import Iterator, Sequence
from contextlib import contextmanager

from newknot.core.audit.breached import CorpusLookup
from newknot.core.audit.check_result import ListAsked
from newknot.core.breach import CorpusInvalid, CorpusTitle
from newknot.outside.range_service import RangeService
from newknot.outside.reaching import OutsideFailed
from newknot.store.corpus import Corpus
from newknot.store.safeguards import get_safeguards
from newknot.store.vault import Vault
from newknot.usecases.progress import Progress


class AskedList:
    """A corpus that may fail: what it could not say is noted, never taken for "not in it"."""

    def __init__(self, lookup: CorpusLookup, title: CorpusTitle) -> None:
        self._lookup = lookup
        self.title = title
        self._unchecked_count = 0
        self._reason = ""

    def occurrences_many(self, digests: Sequence[bytes], /) -> Sequence[int | None]:
        """As the corpus answers; None for each where it fails."""
        found: Sequence[int | None]
        try:
            found = self._lookup.occurrences_many(digests)
        except (CorpusInvalid, OutsideFailed) as error:
            found, self._reason = [None] * len(digests), str(error.data["reason"])
        self._unchecked_count = sum(count is None for count in found)
        if self._unchecked_count and isinstance(self._lookup, RangeService):
            self._reason = self._lookup.reason or self._reason
        return found

    def asked(self) -> ListAsked:
        """What is to be said of it after the check."""
        title = self.title
        sent = self._lookup.asked if isinstance(self._lookup, RangeService) else 0
        return ListAsked(
            title.name,
            title.dated_on,
            title.unique_count,
            self._unchecked_count,
            self._reason,
            sent,
        )


@contextmanager
def service_of(vault: Vault, progress: Progress) -> Iterator[RangeService | None]:
    """The list held elsewhere, for the length of one check that may be stopped; None unless it is
    switched on.
    """
    safeguards = get_safeguards(vault)
    if not safeguards.range_used:
        yield None
        return
    service = RangeService(safeguards.range_address, may_go_on=progress.may_go_on)
    try:
        yield service
    finally:
        service.close()


def lists_to_ask(
    vault: Vault, corpora: Sequence[CorpusLookup], service: RangeService | None
) -> tuple[list[AskedList], list[ListAsked]]:
    """(those to ask by the safeguards, those that cannot be asked at all)."""
    used = corpora if get_safeguards(vault).corpus_used else ()
    lists = [AskedList(one, one.title) for one in used]
    failed: list[ListAsked] = []
    if service is not None:
        try:
            lists.append(AskedList(service, service.title))
        except OutsideFailed as error:
            reason = str(error.data["reason"])
            failed.append(ListAsked("list held elsewhere", None, None, None, reason, 0))
    return lists, failed


def occurrences(corpora: Sequence[CorpusLookup], digest: bytes) -> int | None:
    """The most that any of the corpora holds it; None where none could say."""
    counts: list[int] = []
    for one in corpora:
        try:
            (count,) = one.occurrences_many([digest])
        except CorpusInvalid:
            continue
        if count is not None:
            counts.append(count)
    return max(counts) if counts else None


def verified(corpus: Corpus, progress: Progress) -> bool:
    """Reads a whole corpus against its checksums; False where stopped.

    Raises `CorpusInvalid`, and `CheckRunning` where another long act is under way.
    """
    with progress.of_one_act() as step:
        return corpus.verify(step)
