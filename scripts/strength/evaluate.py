"""Holds the measure against the open set: ordered pairs, bands, and processes of known size.

evaluate.py [--worst] [--held-out]   with the texts that score worst; by what is kept out as well

A specialist knows how a secret was made; a generalist knows only the equal mixture of all the ways.
"""

import sys
from collections.abc import Iterable
from dataclasses import dataclass
from math import inf, log10
from pathlib import Path
from random import Random

from newknot.core.strength import measure
from newknot.core.strength.chain import DIGITS, LOWER, PRINTABLE, UPPER
from scripts.strength.afresh import afresh
from scripts.strength.afterwards import afterwards
from scripts.strength.blind import blind
from scripts.strength.everyday import everyday
from scripts.strength.further import further
from scripts.strength.held_out.families import families
from scripts.strength.latest import latest
from scripts.strength.newest import newest
from scripts.strength.noted import noted
from scripts.strength.offhand import offhand
from scripts.strength.processes import Process, processes
from scripts.strength.put_together import put_together
from scripts.strength.rarer import rarer
from scripts.strength.thereafter import thereafter
from scripts.strength.tongues import tongues
from scripts.strength.twice_changed import twice_changed
from scripts.strength.unseen import unseen
from scripts.strength.untried import untried

OPEN_SET, HELD_OUT = (Path(__file__).parent / name for name in ("open_set", "held_out"))
EACH = 20
SEED = 7
FAR = 3.0
NEAR = 20.0
BUDGETS = (6.0, 10.0, 14.0)
DRAWN_FROM = (LOWER, LOWER + DIGITS, UPPER + DIGITS, LOWER + UPPER + DIGITS, PRINTABLE[1:])


def rows(name: str, folder: Path = OPEN_SET) -> list[list[str]]:
    """The rows of a table of a set: fields by tab, `# ` begins a comment."""
    lines = (folder / name).read_text(encoding="utf-8").splitlines()
    return [line.split("\t") for line in lines if line and not line.startswith("# ")]


def guesses(text: str) -> float:
    return measure(text).guess_number_log10


def misordered_pairs() -> tuple[list[tuple[str, float, str, float]], int]:
    """The pairs whose first text is not below the second, and how many pairs there are."""
    pairs = [(a, guesses(a), b, guesses(b)) for a, b in rows("pairs.tsv")]
    return [p for p in pairs if p[1] >= p[3]], len(pairs)


def out_of_band(folder: Path = OPEN_SET) -> tuple[list[tuple[str, float, float, float]], int]:
    """Hand-made texts outside the band they were put in, and how many there are."""
    bands = rows("bands.tsv", folder)
    table = [(t, guesses(t), float(low), float(high or inf)) for t, low, high in bands]
    return [r for r in table if not r[2] <= r[1] < r[3]], len(table)


@dataclass(frozen=True, slots=True)
class Drawn:
    """A text of a known process, with its measure."""

    process: Process
    text: str
    guesses_log10: float

    @property
    def error(self) -> float:
        """Orders above (over-rated) or below the truth."""
        return self.guesses_log10 - self.process.outcomes_log10


def drawn(ways: Iterable[Process], each: int = EACH) -> list[Drawn]:
    """The same texts each time."""
    random = Random(SEED)  # noqa: S311 (a sample, not a secret)
    made = [(p, p.make(random)) for p in ways for _ in range(each)]
    return [Drawn(process, text, guesses(text)) for process, text in made]


def share(part: int, whole: int) -> str:
    return f"{100 * part / whole:5.1f} %"


def main(*, worst: bool, held_out: bool) -> None:
    if held_out:
        print("kept out, never fitted")
        _report(HELD_OUT, families(), worst=worst)
        print("\nfurther, written before the finders of disguises")
        _report(None, further(), worst=worst)
        print("\nnoted, written before the finders of versions and prices")
        _report(None, noted(), worst=worst)
        print("\nunseen, written after all the finders of then")
        _report(None, unseen(), worst=worst)
        print("\nlatest, written after the frames and the scheme")
        _report(None, latest(), worst=worst)
        print("\nafterwards, written when letters alone and groups were known")
        _report(None, afterwards(), worst=worst)
        print("\nnewest, written after all of those")
        _report(None, newest(), worst=worst)
        print("\nblind, written after newest")
        _report(None, blind(), worst=worst)
        print("\nrarer, rare ways, written after blind")
        _report(None, rarer(), worst=worst)
        print("\neveryday, written after rarer")
        _report(None, everyday(), worst=worst)
        print("\nuntried, written before the cheaper way")
        _report(None, untried(), worst=worst)
        print("\noffhand, written after all of those")
        _report(None, offhand(), worst=worst)
        print("\nafresh, written before letters in another order and few characters")
        _report(None, afresh(), worst=worst)
        print("\nthereafter, written after afresh")
        _report(None, thereafter(), worst=worst)
        print("\ntongues, written last")
        _report(None, tongues(), worst=worst)
        print("\nwords changed in two ways, one upon the other")
        _report(None, twice_changed(), worst=worst, count=2)
        print("\nparts of 41 kinds put together at random")
        _report(None, put_together(), worst=worst, count=1)
        print("\ndrawn by chance, 7 to 20 characters of five alphabets")
        _report_chance()
        print("\nopen, fitted")
    _report(OPEN_SET, processes(), worst=worst)


def _report_chance() -> None:
    random = Random(SEED)  # noqa: S311 (a sample, not a secret)
    errors = [
        guesses("".join(random.choices(alphabet, k=size))) - size * log10(len(alphabet))
        for size in (7, 8, 9, 10, 12, 14, 16, 20)
        for alphabet in DRAWN_FROM
        for _ in range(75)
    ]
    for far in (FAR, 5.0):
        below = sum(error < -far for error in errors)
        print(
            f"under-rated by {far:.0f} orders         {share(below, len(errors))} of {len(errors)}"
        )


def _report(
    folder: Path | None, ways: Iterable[Process], *, worst: bool, count: int = EACH
) -> None:
    wrong, all_pairs = misordered_pairs() if folder == OPEN_SET else ([], 0)
    if all_pairs:
        right = all_pairs - len(wrong)
        print(f"pairs in the right order       {share(right, all_pairs)} of {all_pairs}")
    outside, all_bands = out_of_band(folder) if folder else ([], 0)
    within = all_bands - len(outside)
    if all_bands:
        print(f"hand-made within their band    {share(within, all_bands)} of {all_bands}")
    each = drawn(ways, count)
    mixture = log10(len({d.process.name for d in each}))
    over = [d for d in each if d.error > FAR]
    also = [d for d in over if d.error - mixture > FAR]
    under = [d for d in each if d.error < -FAR]
    print(f"over-rated by three orders     {share(len(over), len(each))} of {len(each)}", end="")
    print(f", to a generalist {share(len(also), len(each))}")
    print(f"under-rated by three orders    {share(len(under), len(each))}")
    middle = sorted(d.error for d in each)[len(each) // 2]
    near = [abs(d.error) for d in each if d.process.outcomes_log10 <= NEAR]
    print(f"median error                   {middle:+.2f} orders")
    print(f"mean error up to 10^{NEAR:.0f}         {sum(near) / len(near):.2f} orders")
    for budget in BUDGETS:
        falls = [d for d in each if d.process.outcomes_log10 < budget]
        passed = [d for d in falls if d.guesses_log10 >= budget]
        print(
            f"wrongly accepted at 10^{budget:<7.0f} {share(len(passed), len(each))} of all, ",
            end="",
        )
        print(f"{share(len(passed), len(falls))} of those below")
    if worst:
        print(*wrong, *outside, sep="\n")
        by_process: dict[str, list[Drawn]] = {}
        for one in (*over, *under):
            by_process.setdefault(one.process.name, []).append(one)
        for name, ones in by_process.items():
            sample = " ".join(f"{d.text}:{d.error:+.1f}" for d in ones[:4])
            print(f"{name} ({ones[0].process.outcomes_log10:.1f}): {len(ones)} {sample}")
        for budget in BUDGETS:
            names = [
                d.process.name for d in each if d.process.outcomes_log10 < budget <= d.guesses_log10
            ]
            print(budget, {n: names.count(n) for n in names})


if __name__ == "__main__":
    main(worst="--worst" in sys.argv, held_out="--held-out" in sys.argv)
