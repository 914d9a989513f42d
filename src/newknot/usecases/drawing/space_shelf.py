"""The spaces counted lately: counts and tables alone, never a draw."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import TypeVar, cast

from newknot.core.generate import (
    PassphraseShape,
    PassphraseSpace,
    PasswordSpace,
    SentenceShape,
    SentenceSpace,
)
from newknot.core.generate.phrases.fitting import (
    FittedPassphrase,
    FittedSentence,
    fit_passphrase,
    fit_sentence,
)
from newknot.core.policy import SitePolicy

SPACES_KEPT = 32
T = TypeVar("T")


class SpaceShelf:
    """Emptied at lock: a policy may name the user in its forbidden texts."""

    def __init__(self) -> None:
        self._kept: OrderedDict[Hashable, object] = OrderedDict()
        self._lock = Lock()

    def password(self, policy: SitePolicy, length: int) -> PasswordSpace:
        """The space of a policy and length. Raises the errors of `PasswordSpace`."""
        beside = self._of_policy(policy)
        return self._found((policy, length), lambda: PasswordSpace(policy, length, beside=beside))

    def passphrase(self, wish: PassphraseShape, policy: SitePolicy | None) -> FittedPassphrase:
        """The space nearest to a wish that the policy has room for. Raises as `fit_passphrase`."""

        def make() -> FittedPassphrase:
            if policy is None:
                return FittedPassphrase(PassphraseSpace(wish), ())
            return fit_passphrase(wish, policy)

        return self._found((wish, policy), make)

    def sentence(self, wish: SentenceShape, policy: SitePolicy | None) -> FittedSentence:
        """The space nearest to a wish that the policy has room for. Raises as `fit_sentence`."""

        def make() -> FittedSentence:
            if policy is None:
                return FittedSentence(SentenceSpace(wish), ())
            return fit_sentence(wish, policy)

        return self._found((wish, policy), make)

    def clear(self) -> None:
        """Lets all go."""
        with self._lock:
            self._kept.clear()

    def _of_policy(self, policy: SitePolicy) -> PasswordSpace | None:
        with self._lock:
            for kept in reversed(self._kept.values()):
                if isinstance(kept, PasswordSpace) and kept.policy == policy:
                    return kept
            return None

    def _found(self, key: Hashable, make: Callable[[], T]) -> T:
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
                return cast("T", self._kept[key])
        made = make()
        with self._lock:
            self._kept[key] = made
            while len(self._kept) > SPACES_KEPT:
                self._kept.popitem(last=False)
        return made
