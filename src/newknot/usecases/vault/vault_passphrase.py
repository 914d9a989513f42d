"""The vault's passphrase: judged while it is chosen, changed, and never chosen alike again."""

from collections.abc import Collection, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from threading import Lock

from newknot.core.audit.breached import CorpusLookup
from newknot.core.audit.like_passphrase import OF_EARLIER, OF_PRESENT
from newknot.core.secret import Secret
from newknot.core.strength.resemblance import forms
from newknot.crypto import KdfParameters
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.logins import get_history, get_secrets
from newknot.store.manifest import Label
from newknot.store.passphrases import KnownPassphrase, get_passphrases, put_passphrases
from newknot.store.vault import Vault
from newknot.usecases.check.measuring import FullMeasure, full_measure
from newknot.usecases.errors import PassphraseBreached, PassphraseResembles, PassphraseTooWeak
from newknot.usecases.logins.logins import list_logins

__all__ = ["Judgement", "Likeness", "change_passphrase", "get_passphrases", "judge"]

REFUSED_BELOW_LOG10, WARNED_BELOW_LOG10 = 10.0, 14.0


class Verdict(StrEnum):
    """What is said of a passphrase to be."""

    REFUSED = "refused"
    WARNED = "warned"
    GOOD = "good"


@dataclass(frozen=True, slots=True)
class Judgement:
    """The measure of a passphrase, and what it resembles: titles of logins, and whether one of
    the vault's own passphrases, present or earlier. drawn: by chance, here or by dice.
    """

    measured: FullMeasure
    resembles_logins: tuple[str, ...] = ()
    resembles_earlier: bool = False
    drawn: bool = False

    @property
    def rests_on_a_bound(self) -> bool:
        """Whether it is enough only if nobody guesses how it was made."""
        found = self.measured.measure
        enough = found.guess_number_log10 >= REFUSED_BELOW_LOG10
        guessed = found.is_bound and found.least_log10 < REFUSED_BELOW_LOG10
        return enough and guessed and not self.drawn

    @property
    def verdict(self) -> Verdict:
        """Refused where breached, within 10^10 guesses, or that only if nobody guesses how it was
        made, or like one in use; warned to 10^14.
        """
        guesses = self.measured.measure.guess_number_log10
        alike = self.resembles_logins or self.resembles_earlier
        weak = guesses < REFUSED_BELOW_LOG10 or self.rests_on_a_bound
        if alike or self.measured.breached_count or weak:
            return Verdict.REFUSED
        return Verdict.WARNED if guesses < WARNED_BELOW_LOG10 else Verdict.GOOD

    def require_allowed(self) -> None:
        """Raises `PassphraseBreached`, `PassphraseTooWeak`, `PassphraseResembles`."""
        found = self.measured.measure
        if self.measured.breached_count:
            raise PassphraseBreached()
        if found.guess_number_log10 < REFUSED_BELOW_LOG10 or self.rests_on_a_bound:
            raise PassphraseTooWeak(
                guess_number_log10=found.guess_number_log10,
                reasons=found.reasons,
                is_bound=self.rests_on_a_bound,
            )
        if self.resembles_logins or self.resembles_earlier:
            raise PassphraseResembles(
                logins=list(self.resembles_logins), earlier=self.resembles_earlier
            )


class Likeness:
    """Fingerprints of the forms of every secret in the vault, in memory until the lock."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._of: dict[bytes, str | None] = {}
        self._counter = -1
        self.secrets_count = 0

    def clear(self) -> None:
        """Forgets all of them."""
        with self._lock:
            self._of, self._counter, self.secrets_count = {}, -1, 0

    def look_through(self, vault: Vault) -> None:
        """Reads every secret once, and again only after a change of the vault."""
        with self._lock:
            if self._counter == vault.changes_of_contents:
                return
            of: dict[bytes, str | None] = {}
            count = 0
            for card in list_logins(vault)[0]:
                for secret in _secrets_of(vault, card.login_id):
                    count += 1
                    of.update(dict.fromkeys(_prints(vault, secret.reveal()), card.title))
            for known in get_passphrases(vault):
                of.update(dict.fromkeys(known.fingerprints))
            self._of, self._counter = of, vault.changes_of_contents
            self.secrets_count = count

    def alike(self, vault: Vault, text: str) -> set[str | None]:
        """Titles of logins whose secret the text resembles; None for a passphrase of the vault."""
        self.look_through(vault)
        return {self._of[p] for p in _prints(vault, text) if p in self._of}


def _secrets_of(vault: Vault, login_id: str) -> list[Secret]:
    """A login's secret, its further secret fields, and its earlier secrets, as far as readable."""
    found: list[Secret] = []
    with suppress(RecordDamaged, RecordMissing):
        held = get_secrets(vault, login_id)
        found += [held.secret, *(field.value for field in held.fields)]
    with suppress(RecordDamaged, RecordMissing):
        found += [earlier.secret for earlier in get_history(vault, login_id)]
    return [secret for secret in found if len(secret)]


def _prints(vault: Vault, text: str) -> set[bytes]:
    return set(vault.fingerprints("form", forms(text)).values())


_LIKENESS = {
    "whole": "the same but for capitals and look-alikes",
    "words": "{shared} words are the same",
    "row": "three of its words in a row",
    "letters": "the same letters, or all but one",
}


def passphrase_likeness(vault: Vault, secret: Secret, known: Sequence[KnownPassphrase]) -> str:
    """How a secret resembles a passphrase of the vault, the present one before earlier ones, in a
    sentence; empty where it does not. known: oldest first.
    """
    of_secret = vault.fingerprints("form", forms(secret.reveal()))
    for begins, ones in ((OF_PRESENT, known[-1:]), (OF_EARLIER, known[:-1])):
        prints = frozenset[bytes]().union(*(one.fingerprints for one in ones))
        if said := _likeness(of_secret, prints):
            return f"{begins}: {said}"
    return ""


def _likeness(of_secret: Mapping[str, bytes], prints: Collection[bytes]) -> str:
    shared = {form for form, of in of_secret.items() if of in prints}
    kinds = {form.partition(" ")[0] for form in shared}
    says = next((said for kind, said in _LIKENESS.items() if kind in kinds), "")
    same, words = _words_most(shared), _words_most(of_secret)
    return says.format(shared=f"all {words}" if same == words else f"{same} of its {words}")


def _words_most(of: Collection[str]) -> int:
    """How many words the longest form of words has."""
    return max((form.count(" ") for form in of if form.startswith("words ")), default=0)


def judge(
    text: str,
    *,
    vault: Vault,
    corpora: Sequence[CorpusLookup],
    likeness: Likeness,
    drawn: bool,
) -> Judgement:
    """What is to be said of a passphrase for this vault."""
    measured = full_measure(text, vault=vault, corpora=corpora, context=())
    alike = likeness.alike(vault, text) if text else set()
    titles = tuple(sorted(title for title in alike if title is not None))
    return Judgement(measured, titles, None in alike, drawn)


def change_passphrase(
    vault: Vault,
    passphrase: str,
    *,
    corpora: Sequence[CorpusLookup],
    likeness: Likeness,
    parameters: KdfParameters,
    now: datetime,
    drawn: bool,
) -> None:
    """Seals the vault key under a new passphrase; the former one opens this file no more.

    Raises `PassphraseBreached`, `PassphraseTooWeak`, `PassphraseResembles`.
    """
    judge(
        passphrase, vault=vault, corpora=corpora, likeness=likeness, drawn=drawn
    ).require_allowed()
    with vault.new_passphrase(passphrase, parameters=parameters) as tx:
        fresh = KnownPassphrase(now, frozenset(_prints(vault, passphrase)))
        put_passphrases(tx, vault, [*get_passphrases(vault), fresh])


def note_passphrase(vault: Vault, passphrase: str, *, now: datetime) -> None:
    """Remembers the present passphrase by its fingerprints, where none was remembered yet."""
    if not vault.ids(Label.PASSPHRASES):
        with vault.transaction() as tx:
            prints = frozenset(_prints(vault, passphrase))
            put_passphrases(tx, vault, [KnownPassphrase(now, prints)])
