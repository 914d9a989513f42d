"""Writes `tests/vectors/measures.tsv`: what the measure of this version says of many texts.

Kept measures are taken anew when `DICTIONARY_VERSION` is raised; whoever changes a number without
raising it leaves stale ones in every vault, and fails the test that reads this file.

    python -m scripts.strength.pin
"""

from pathlib import Path
from random import Random

from newknot.core.strength import measure
from newknot.core.strength.dictionaries import DICTIONARY_VERSION
from scripts.strength.afresh import afresh
from scripts.strength.afterwards import afterwards
from scripts.strength.blind import blind
from scripts.strength.evaluate import HELD_OUT, rows
from scripts.strength.everyday import everyday
from scripts.strength.further import further
from scripts.strength.held_out.families import families
from scripts.strength.latest import latest
from scripts.strength.newest import newest
from scripts.strength.noted import noted
from scripts.strength.offhand import offhand
from scripts.strength.processes import processes
from scripts.strength.put_together import put_together
from scripts.strength.rarer import rarer
from scripts.strength.thereafter import thereafter
from scripts.strength.tongues import tongues
from scripts.strength.twice_changed import twice_changed
from scripts.strength.unseen import unseen
from scripts.strength.untried import untried

TARGET = Path(__file__).parents[2] / "tests/vectors/measures.tsv"
CONTEXT = ("Gantry Rentals", "ilse.quist")
SEED = 11
SOME = 4


def texts() -> list[str]:
    """Hand-made ones, and one of each way of making; of ways made of others, of one in so many."""
    random = Random(SEED)  # noqa: S311 (a sample, not a secret)
    made = [
        way.make(random)
        for ways in (
            *(processes, further, families, noted, unseen, latest, afterwards),
            *(newest, blind, rarer, everyday, untried, offhand, afresh, thereafter, tongues),
        )
        for way in ways()
    ]
    made += [way.make(random) for way in (*twice_changed(), *put_together())[::SOME]]
    found = [*rows("bands.tsv"), *rows("bands.tsv", HELD_OUT), *rows("changed.tsv")]
    plain = (t for t in (*(row[0] for row in found), *made) if "\t" not in t and "\n" not in t)
    return list(dict.fromkeys(plain))


def main() -> None:
    """The file anew."""
    lines = [
        f"# Texts, their guess numbers by version {DICTIONARY_VERSION}, beside an own context."
    ]
    for text in texts():
        alone, beside = measure(text), measure(text, CONTEXT)
        number, known = (f"{one.guess_number_log10:.3f}" for one in (alone, beside))
        lines.append(f"{text}\t{number}\t{known}\t{alone.least_log10:.3f}\t{alone.reasons}")
    TARGET.write_text("\n".join(lines) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
