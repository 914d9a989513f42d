"""The rules of a policy that look at neighbours and ends, read one character at a time.

Where `local_rules` takes characters together that no rule tells apart, this reads concrete texts
(words) and forgets what the texts that may follow cannot touch.
"""

from dataclasses import dataclass, replace

from newknot.core.generate.characters.local_rules import Words
from newknot.core.policy.folding import folded, step
from newknot.core.policy.site_policy import SitePolicy


@dataclass(frozen=True, slots=True)
class Reading:
    """What has been read so far, as far as a rule can still look at it."""

    begun: bool = False
    last: str = ""
    run: int = 0
    ident: str = ""
    direction: int = 0
    climb: int = 1
    word: int = 0
    may_end: bool = True


class ReadingRules:
    """Runs, sequences, forbidden texts, first and last characters of a policy.

    Readings are handed out as numbers; each step is worked out once.
    """

    START, WITHIN = 0, 1
    """Nothing read yet; something read that no rule looks at any more."""

    def __init__(self, policy: SitePolicy) -> None:
        self._run, self._sequence = policy.max_identical_run, policy.max_sequence_run
        self._first, self._last = policy.first_from, policy.last_from
        self._words = Words([folded(word) for word in policy.forbidden])
        self.bind = self._run is not None or self._sequence is not None or bool(policy.forbidden)
        """Whether a rule looks at more than the two ends."""
        self._readings = [Reading(), Reading(begun=True)]
        self._numbers = {reading: i for i, reading in enumerate(self._readings)}
        self._steps: dict[tuple[int, str], int] = {}

    def after(self, number: int, text: str) -> int:
        """The reading after a text; -1 where a rule is broken on the way."""
        for character in text:
            key = (number, character)
            following = self._steps.get(key)
            if following is None:
                following = self._number(self._step(self._readings[number], character))
                self._steps[key] = following
            if following < 0:
                return -1
            number = following
        return number

    def reads_as_within(self, number: int, head: str) -> bool:
        """Whether all texts that begin so read, after this, as they read by themselves."""
        if number == self.START and self._first is not None:
            return False
        return not self.bind or self.after(number, head) == self.after(self.WITHIN, head)

    def may_end(self, number: int) -> bool:
        """Whether a text may end here."""
        return self._readings[number].may_end

    def forgotten(self, number: int, following: frozenset[str]) -> int:
        """The reading without what none of the characters that may follow can touch."""
        reading = self._readings[number]
        if not self.bind or not reading.begun:
            return number
        folds = {folded(c) for c in following}
        kept = reading
        if reading.last and reading.last not in following:
            kept = replace(kept, last="", run=0)
        if reading.ident and not any(step(reading.ident, c) for c in folds):
            kept = replace(kept, ident="", direction=0, climb=1)
        here, root = self._words.goto[reading.word], self._words.goto[0]
        if reading.word and all(here.get(c, 0) == root.get(c, 0) for c in folds):
            kept = replace(kept, word=0)
        return self._number(kept)

    def _number(self, reading: Reading | None) -> int:
        if reading is None:
            return -1
        if reading not in self._numbers:
            self._numbers[reading] = len(self._readings)
            self._readings.append(reading)
        return self._numbers[reading]

    def _step(self, at: Reading, character: str) -> Reading | None:
        if not at.begun and self._first is not None and character not in self._first:
            return None
        may_end = self._last is None or character in self._last
        if not self.bind:
            return Reading(begun=True, may_end=may_end)
        ident = folded(character)
        word = self._words.after(at.word, ident)
        if word < 0:
            return None
        run = at.run + 1 if character == at.last else 1
        if self._run is not None and run > self._run:
            return None
        direction, climb = 0, 1
        if self._sequence is not None:
            by = step(at.ident, ident) if at.ident else 0
            if by:
                direction, climb = by, at.climb + 1 if at.direction in (0, by) else 2
                if climb > self._sequence:
                    return None
        return Reading(
            begun=True,
            last="" if self._run is None else character,
            run=0 if self._run is None else run,
            ident="" if self._sequence is None else ident,
            direction=direction,
            climb=climb,
            word=word,
            may_end=may_end,
        )
