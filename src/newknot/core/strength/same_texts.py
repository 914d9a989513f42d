"""One text beside what is known of many logins: measured once, where none of that occurs in it."""

from collections.abc import Iterable

from newknot.core.strength.context import Context, read_context
from newknot.core.strength.finders.slips import known_slips
from newknot.core.strength.kept import KeptMeasure, kept
from newknot.core.strength.measure import LookedAt, measured
from newknot.core.strength.reading import Reading, read
from newknot.core.strength.views import WORD_LEAST


class SameTexts:
    """The measures of texts, of which many logins may have one. It holds the texts themselves: in
    memory alone, for as long as it is held.
    """

    def __init__(self) -> None:
        self._held: dict[str, tuple[KeptMeasure, str, str, list[Reading]]] = {}

    def of(self, text: str, context: Iterable[str]) -> KeptMeasure:
        """What `measure` says of the text beside this context."""
        own = read_context(context)
        held = self._held.get(text)
        if held is None:
            reading = read(text)
            if _occurs(own, _searched(reading)):
                return kept(measured(reading, own))
            looked_at = LookedAt()
            found = kept(measured(reading, _NOTHING, looked_at))
            searched = "\n".join(map(_searched, looked_at.readings))
            undone = "\n".join(looked_at.undone)
            held = self._held[text] = found, searched, undone, looked_at.readings
        found, searched, undone, readings = held
        is_known = (
            _occurs(own, searched)
            or any(len(shape) >= WORD_LEAST and shape in undone for shape in own.shapes)
            or any(True for one in readings for _ in known_slips(one, own))
        )
        return kept(measured(read(text), own)) if is_known else found


_NOTHING = read_context(())


def _searched(reading: Reading) -> str:
    """All in which a word is looked for, of a text or of a view of it: also written backwards."""
    return "\n".join(dict.fromkeys((reading.shaped, reading.shaped[::-1], reading.low)))


def _occurs(own: Context, searched: str) -> bool:
    return any(shape in searched for shape in own.shapes)
