"""Holds the measure against the open set: ordered pairs, bands, and processes of known size.

evaluate.py [--worst]      with the texts that score worst
"""

import sys
from dataclasses import dataclass
from math import inf
from pathlib import Path
from random import Random

from newknot.core.strength import measure
from scripts.strength.processes import Process, processes

OPEN_SET = Path(__file__).parent / "open_set"
EACH = 20
SEED = 7
FAR = 3.0
BUDGETS = (6.0, 10.0, 14.0)


def rows(name: str) -> list[list[str]]:
    """The rows of a table of the open set: fields by tab, `#` begins a comment."""
    lines = (OPEN_SET / name).read_text(encoding="utf-8").splitlines()
    return [line.split("\t") for line in lines if line and not line.startswith("# ")]


def guesses(text: str) -> float:
    return measure(text).guess_number_log10


def misordered_pairs() -> tuple[list[tuple[str, float, str, float]], int]:
    """The pairs whose first text is not below the second, and how many pairs there are."""
    pairs = [(a, guesses(a), b, guesses(b)) for a, b in rows("pairs.tsv")]
    return [p for p in pairs if p[1] >= p[3]], len(pairs)


def out_of_band() -> tuple[list[tuple[str, float, float, float]], int]:
    """Hand-made texts outside the band they were put in, and how many there are."""
    table = [(t, guesses(t), float(low), float(high or inf)) for t, low, high in rows("bands.tsv")]
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


def drawn(each: int = EACH) -> list[Drawn]:
    """The same texts each time."""
    random = Random(SEED)  # noqa: S311 (a sample, not a secret)
    made = [(p, p.make(random)) for p in processes() for _ in range(each)]
    return [Drawn(process, text, guesses(text)) for process, text in made]


def share(part: int, whole: int) -> str:
    return f"{100 * part / whole:5.1f} %"


def main(*, worst: bool) -> None:
    wrong, all_pairs = misordered_pairs()
    print(
        f"pairs in the right order       {share(all_pairs - len(wrong), all_pairs)} of {all_pairs}"
    )
    outside, all_bands = out_of_band()
    within = all_bands - len(outside)
    print(f"hand-made within their band    {share(within, all_bands)} of {all_bands}")
    each = drawn()
    over = [d for d in each if d.error > FAR]
    under = [d for d in each if d.error < -FAR]
    print(f"over-rated by three orders     {share(len(over), len(each))} of {len(each)}")
    print(f"under-rated by three orders    {share(len(under), len(each))}")
    middle = sorted(d.error for d in each)[len(each) // 2]
    print(f"median error                   {middle:+.2f} orders")
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
    main(worst="--worst" in sys.argv)
