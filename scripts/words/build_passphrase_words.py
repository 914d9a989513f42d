"""Rebuilds `words_7776.txt` and `words_4096.txt` in `core/data`: 12.92 and 12 bits a word.

Common words of 3 to 9 letters. Of any two: neither is the start of the other, they are two slips
apart, do not sound alike, and are not of one family. The lists that ship were read through by
eye; the solver may choose otherwise among equals.

    python -m scripts.words.build_passphrase_words SCOWL WORDNET SITE_PACKAGES NODE_MODULES TARGET

Beside the packages named in `sources`: `nltk` 3.10.4, `lemminflect` 0.2.3, `rapidfuzz` 3.14.6,
`numpy` 2.4.6, `scipy` 1.17.1.
"""

import sys
from pathlib import Path

from scripts.words.candidates import Candidates
from scripts.words.conflicts import best, one_family, said_alike, slips, starts
from scripts.words.sources import Sources
from scripts.words.wordnet import WordNet

SIZES = (7776, 4096)


def main(scowl: Path, wordnet: Path, site_packages: Path, modules: Path, target: Path) -> None:
    deny = Path(__file__).with_name("deny_words.txt")
    sources = Sources(scowl, site_packages, modules, deny)
    candidates = Candidates(sources, WordNet(wordnet))
    words = candidates.words()
    print(f"{len(words):,} candidates")

    def worth(word: str) -> float:
        z = sources.commonness(word)
        return round(-(max(0.0, 3.4 - z) ** 2) - 0.06 * len(word) + 0.1 * min(z, 5.0), 6)

    pairs = starts(words) | slips(words)
    groups = said_alike(words, candidates.sounds) + one_family(words)
    for size in SIZES:
        chosen = best(words, pairs, groups, {w: worth(w) for w in words}, size)
        if chosen is None:
            sys.exit(f"no {size:,} words under these rules")
        (target / f"words_{size}.txt").write_text("\n".join(chosen) + "\n", "utf-8")
        print(f"{size:,} words, {sum(map(len, chosen)) / size:.2f} letters")


if __name__ == "__main__":
    main(*(Path(a) for a in sys.argv[1:6]))
