"""Rebuilds `sentence_de.txt`, `sentence_fr.txt`, `sentence_es.txt` and `sentence_ru.txt` in
`core/data/languages`: the words that sentences in these languages are drawn from.

256 nouns (plural; of Russian as after a number), 128 adjectives, 128 verbs (past, third person
plural) and 64 places, out of what was chosen by hand in `sentences_abroad`: no grammar of these
languages can be had that would choose by rule. Of that, what passes: letters that each keyboard of
the language has without an accent, and no accent alone tells it from another word; common as it
stands; nothing that a list of offence holds, no given name. Of any two of a kind: two slips apart,
and they do not sound alike. Of the rest the most common.

    python -m scripts.words.build_sentences_abroad NODE_MODULES TARGET

Of the packages that `build_words_abroad` names: `wordfreq`, `naughty-words`, `cuss`,
`leo-profanity`, `espeak-ng`, and what its modules load.
"""

import gzip
import re
import sys
from collections import defaultdict
from pathlib import Path

import wordfreq

from scripts.words.build_words_abroad import (
    ALPHABET,
    SHIPPED,
    TWIN_LEAST,
    bare,
    denied,
    grouped,
    offence,
    sounds,
)
from scripts.words.conflicts import best, slips

SIZES = {"noun": 256, "adj": 128, "verb": 128, "place": 64}
LETTERS = range(3, 15)
COMMON_LEAST = {"noun": 2.0, "adj": 2.0, "verb": 1.3, "place": 2.0}
"""log10 of occurrences in 10^9, as `wordfreq` gives it, of the form that a sentence shows."""


_ENDING = {"de": "e", "ru": "ых"}


def given_names() -> set[str]:
    """Given names; that a thing or a quality is a surname too makes no name of it."""
    text = gzip.decompress((SHIPPED / "given_names.txt.gz").read_bytes()).decode("utf-8")
    return {line.split("\t")[0].lower() for line in text.splitlines()}


def shown(language: str, kind: str, word: str) -> str:
    """The form by which its commonness is told."""
    return f"{word}{_ENDING.get(language, '')}" if kind == "adj" else word


def main(modules: Path, target: Path) -> None:
    given = given_names()
    for source in sorted(Path(__file__).with_name("sentences_abroad").glob("*.txt")):
        language = source.stem
        counts = wordfreq.get_frequency_dict(language, "best")
        z = {word: float(wordfreq.freq_to_zipf(count)) for word, count in counts.items()}
        twins = {bare(w) for w in z if bare(w) != w and z[w] >= TWIN_LEAST}
        out = offence(language, modules) | denied(language) | twins | given
        chosen_by_hand: dict[str, set[str]] = defaultdict(set)
        for line in source.read_text("utf-8").splitlines():
            if not line.startswith("#"):
                kind, *words = line.split()
                chosen_by_hand[kind].update(words)
        lines: list[str] = []
        for kind, size in SIZES.items():
            worth = {w: z.get(shown(language, kind, w.lower()), 0.0) for w in chosen_by_hand[kind]}
            words = sorted(
                w
                for w in chosen_by_hand[kind]
                if len(w) in LETTERS and re.fullmatch(f"[{ALPHABET[language]}]+", w.lower())
                if worth[w] >= COMMON_LEAST[kind] and w.lower() not in out
            )
            left = sorted(chosen_by_hand[kind] - {*words})
            groups = [g for g in grouped(words, sounds(language, words)) if len(g) > 1]
            chosen = best(words, _slips(words), groups, worth, size)
            print(f"{language} {kind}: {len(words)} pass, not {' '.join(left)}")
            if chosen is None:
                sys.exit(f"no {size} of kind {kind} under these rules")
            lines += [f"{kind} {word}" for word in chosen]
        (target / f"sentence_{language}.txt").write_text("\n".join(lines) + "\n", "utf-8")


def _slips(words: list[str]) -> set[tuple[str, str]]:
    whole = {word.lower(): word for word in words}
    return {(whole[a], whole[b]) for a, b in slips(list(whole))}


if __name__ == "__main__":
    main(*(Path(a) for a in sys.argv[1:3]))
