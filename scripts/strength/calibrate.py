"""Rebuilds `core/data/guesses_by_effort.txt`: what an effort was worth, by known ways of making.

Secrets are drawn from processes whose number of outcomes is known; a row gives, for those of about
one effort, the outcomes that 42 of a hundred stay below. One that would come out up to 0.6
orders above a bound that a decision hangs on stays below it, for it is no surer than that. Of the
ways that were written down before the finders knew them a fifth as many are drawn: what is met
outside is in part what no finder was written for. Rows rise (pool adjacent violators; Ayer and
others, 1955) and stand every 0.4 orders; beyond the last one order of effort is one of guesses.

No list is whole: one word in so many, one language and one keyboard are kept from the measure while
it is fitted, so that the table knows what an effort is worth where the way is not known.

    calibrate.py [EACH]       secrets for each process, 200 unless given
"""

import sys
from collections.abc import Iterator
from importlib import import_module
from pathlib import Path
from random import Random
from zlib import crc32

from newknot.core.shipped import shipped_lines
from newknot.core.strength.context import read_context
from newknot.core.strength.dictionaries import dictionaries
from newknot.core.strength.measure import Looks
from newknot.core.strength.reading import read, shape_of_letters
from scripts.strength.afterwards import afterwards
from scripts.strength.further import further
from scripts.strength.latest import latest
from scripts.strength.newest import newest
from scripts.strength.noted import noted
from scripts.strength.processes import processes
from scripts.strength.rarer import rarer
from scripts.strength.unseen import unseen

TARGET = Path(__file__).parents[2] / "src/newknot/core/data/guesses_by_effort.txt"
STEP, ROWS, REACH = 0.4, 100, 0.6
SHARE = 0.42
BOUNDS, DOUBT, BELOW = (6.0, 10.0, 14.0), 0.6, 0.15
NEW_SHARE = 0.21
FIRST, LEAST_SLOPE = 3.2, 0.3
"""Below the first row all goes evenly to nothing; two efforts never give one number."""
SEED = 20260214
OUT_OF = 20


def rising(values: list[float], weights: list[int]) -> list[float]:
    """The nearest row of values that never falls, by weighted squares."""
    blocks: list[tuple[float, int, int]] = []
    for value, weight in zip(values, weights, strict=True):
        blocks.append((value, weight, 1))
        while len(blocks) > 1 and blocks[-2][0] > blocks[-1][0]:
            (b, wb, nb), (a, wa, na) = blocks.pop(), blocks.pop()
            blocks.append(((a * wa + b * wb) / (wa + wb), wa + wb, na + nb))
    return [value for value, _, count in blocks for _ in range(count)]


def below_bounds(value: float) -> float:
    """Just below a bound where it is not surely above."""
    near = (bound for bound in BOUNDS if bound <= value < bound + DOUBT)
    return next((bound - BELOW for bound in near), value)


def keep_out() -> None:
    """One word in `OUT_OF` of every list, the Italian ones and a keyboard are forgotten."""
    list_words, walks, words = (
        import_module(f"newknot.core.strength.finders.{name}")
        for name in ("list_words", "walks", "words")
    )
    numbers = dictionaries().number
    italian = frozenset(
        shape_of_letters("\n".join(shipped_lines("languages/it.txt.gz"))).split()
    ) - frozenset(shape_of_letters("\n".join(shipped_lines("english_words.txt.gz"))).split())
    for shape in [s for s in numbers if _is_out(s) or s in italian]:
        del numbers[shape]
    costs = list_words._each_log10()
    for word in [w for w in costs if _is_out(shape_of_letters(w))]:
        del costs[word]
    plain = words.rarer_words

    def without(shaped: str) -> Iterator[tuple[int, int, float]]:
        for start, end, cost in plain(shaped):
            if not _is_out(shaped[start:end]) and shaped[start:end] not in italian:
                yield start, end, cost

    setattr(words, "rarer_words", without)  # noqa: B010
    rest = tuple(k for k in walks.KEYBOARDS if "azertyuiop" not in k.rows[1])
    setattr(walks, "KEYBOARDS", rest)  # noqa: B010


def _is_out(shape: str) -> bool:
    return crc32(shape.encode()) % OUT_OF == 0


def main(each: int) -> None:
    keep_out()
    random, own = Random(SEED), read_context(())  # noqa: S311 (a sample, not a secret)
    drawn: list[tuple[float, float]] = []
    new = int(NEW_SHARE * each)
    ways = [(one, each) for one in processes()]
    later = (further, noted, unseen, latest, afterwards, newest, rarer)
    ways += [(one, new) for written in later for one in written()]
    for process, secrets in ways:
        for _ in range(secrets):
            way = Looks(read(process.make(random)), own).way_made(knowing=True)
            # What the scheme takes away afterwards, and what is charged, is none of the table's.
            truth = process.outcomes_log10 + way.scheme_log10 - way.charge_log10
            drawn.append((way.effort_log10, truth))
    drawn.sort()
    efforts, values, weights = [], [], []
    for row in range(1, ROWS + 1):
        middle = row * STEP
        truths = sorted(truth for effort, truth in drawn if abs(effort - middle) < REACH)
        if len(truths) >= each // 2:
            efforts.append(middle)
            values.append(truths[int(SHARE * len(truths))])
            weights.append(len(truths))
    # A few orders are averaged, so that no single process bends the table.
    smooth = [
        below_bounds(sum(values[max(0, at - 2) : at + 3]) / len(values[max(0, at - 2) : at + 3]))
        for at in range(len(values))
    ]
    rows = [(0.0, 0.0)]
    for effort, guesses in zip(efforts, rising(smooth, weights), strict=True):
        if effort >= FIRST:
            least = rows[-1][1] + LEAST_SLOPE * (effort - rows[-1][0])
            rows.append((effort, max(guesses, least)))
    head = "# log10 of the effort; log10 of the guesses\n"
    TARGET.write_text(head + "".join(f"{effort:.1f} {guesses:.2f}\n" for effort, guesses in rows))


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 200)
