"""Rebuilds `core/data/letter_triples.bin.gz`: how likely a letter is after the two before it.

One byte for each triple over the word's edge and a to z, row by row: -log10 of the probability in
steps of 1/40. Counted over the shipped lists of English words, names and places, each word once,
and smoothed by pairs and single letters (Jelinek and Mercer, 1980).

    build_letter_chain.py
"""

import gzip
from itertools import product
from math import log10
from pathlib import Path

DATA = Path(__file__).parents[1] / "src/newknot/core/data"
LISTS = ("english_words", "given_names", "surnames", "names_abroad", "places", "proper_names")
LETTERS = 27
STEPS_PER_ORDER = 40
WEIGHTS = (0.85, 0.12, 0.025)
"""Of triples, pairs and single letters; what is left is even."""


def letters(word: str) -> list[int]:
    """0 for an edge, 1 to 26 for a to z; empty for a word with any other letter."""
    if not (word.isascii() and word.isalpha()):
        return []
    return [0, 0, *(ord(c) - 96 for c in word), 0]


def main() -> None:
    words = {
        word
        for name in LISTS
        for word in gzip.decompress((DATA / f"{name}.txt.gz").read_bytes()).decode().split()
    }
    triples: dict[tuple[int, ...], int] = {}
    for word in words:
        line = letters(word)
        for at in range(2, len(line)):
            for size in (0, 1, 2):
                key = tuple(line[at - size : at + 1])
                triples[key] = triples.get(key, 0) + 1

    def share(key: tuple[int, ...]) -> float:
        whole = sum(triples.get((*key[:-1], last), 0) for last in range(LETTERS))
        return triples.get(key, 0) / whole if whole else 1 / LETTERS

    table = bytearray()
    for key in product(range(LETTERS), repeat=3):
        parts = (share(key), share(key[1:]), share(key[2:]), 1 / LETTERS)
        weights = (*WEIGHTS, 1 - sum(WEIGHTS))
        chance = sum(w * p for w, p in zip(weights, parts, strict=True))
        table.append(min(255, round(-log10(chance) * STEPS_PER_ORDER)))
    (DATA / "letter_triples.bin.gz").write_bytes(gzip.compress(bytes(table), 9, mtime=0))


if __name__ == "__main__":
    main()
