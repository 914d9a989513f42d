"""Rebuilds `words_de_2048.txt`, `words_fr_2048.txt`, `words_es_2048.txt` and `words_ru_2048.txt` in
`core/data/languages`: eleven bits a word.

Common words of 4 to 9 letters, in their base form, of letters that each keyboard of the language
has without an accent: a word that is written with one is left out, and so is one that only an
accent tells from another, for whoever types it without. Of any two: neither is the start of the
other, they are two slips apart, and do not sound alike; nor does a word sound like a commoner one
that is left out. No names, nothing that a list of offence holds. The lists that ship were read
through by eye (`deny_words_abroad.txt`); the solver may choose otherwise among equals.

    python -m scripts.words.build_words_abroad SITE_PACKAGES NODE_MODULES TARGET

PyPI `wordfreq` 3.1.1, `german-nouns` 1.2.5, `simplemma` 2.0.0, `pymorphy3` 2.0.6, `rapidfuzz`
3.14.6, `numpy` 2.4.6, `scipy` 1.17.1, `nltk` 3.10.4, `lemminflect` 0.2.3; npm `dictionary-fr`
3.0.0, `dictionary-es` 4.0.0, `dictionary-ru` 3.0.0, `naughty-words` 1.2.0, `cuss` 2.2.0,
`leo-profanity` 1.9.0; Debian `espeak-ng` 1.51, which says how a word sounds.
"""

import csv
import gzip
import json
import re
import subprocess
import sys
import unicodedata
from collections import defaultdict
from collections.abc import Collection, Iterable
from dataclasses import dataclass
from pathlib import Path

import pymorphy3
import simplemma
import wordfreq

from scripts.words.conflicts import best, slips, starts

SIZE = 2048
LETTERS = range(4, 10)
COMMON_LEAST, TWIN_LEAST, ALIKE_GAP = 2.3, 2.0, 0.7
"""log10 of occurrences in 10^9, as `wordfreq` gives it: of a word; of one that an accent alone
tells from it; by how much one that sounds the same may be rarer or less common."""
ALPHABET = {"de": "a-z", "fr": "a-z", "es": "a-z", "ru": "а-я"}
VOICE = {"de": "de", "fr": "fr-fr", "es": "es", "ru": "ru"}
_RUSSIAN = pymorphy3.MorphAnalyzer()
_KINDS = {"NOUN", "ADJF", "INFN"}
_NAMED = {"Name", "Surn", "Patr", "Geox", "Orgn", "Abbr"}
_UNHEARD = re.compile(r"[ˈˌː ]|\([a-z]+\)")
"""Stress, length, and where another language is spoken."""
_RATED = re.compile(r"^  '?([^\s':]+)'?: \d", re.MULTILINE)
SHIPPED = Path("src/newknot/core/data")


@dataclass(frozen=True)
class Candidates:
    """The words that may stand in a list at all, how common each is, and how it sounds."""

    words: list[str]
    commonness: dict[str, float]
    said: dict[str, str]


def candidates(language: str, site: Path, modules: Path) -> Candidates:
    """By the filters that look at one word alone, and at what sounds like it."""
    counts = wordfreq.get_frequency_dict(language, "best")
    z = {word: float(wordfreq.freq_to_zipf(count)) for word, count in counts.items()}
    plain = re.compile(f"[{ALPHABET[language]}]+")
    out = names() | offence(language, modules) | denied(language)
    twins = {bare(w) for w in z if bare(w) != w and z[w] >= TWIN_LEAST}
    words = [
        w
        for w in dictionary(language, site, modules)
        if len(w) in LETTERS and plain.fullmatch(w) and z.get(w, 0.0) >= COMMON_LEAST
        if w not in out and w not in twins and is_base_form(w, language)
    ]
    heard = {w for w in z if z[w] >= TWIN_LEAST and w.isalpha()}
    said = sounds(language, heard | {*words})
    by_sound: dict[str, list[str]] = defaultdict(list)
    for word, sound in said.items():
        by_sound[sound].append(word)
    alone = [w for w in words if all(z[o] < z[w] - ALIKE_GAP for o in by_sound[said[w]] if o != w)]
    return Candidates(alone, z, said)


def main(site: Path, modules: Path, target: Path) -> None:
    for language in ALPHABET:
        found = candidates(language, site, modules)
        words, z = found.words, found.commonness
        print(f"{language}: {len(words):,} candidates")
        chosen = best(
            words,
            starts(words) | slips(words),
            [group for group in grouped(words, found.said) if len(group) > 1],
            {w: round(-(max(0.0, 4.0 - z[w]) ** 2) - 0.05 * len(w), 6) for w in words},
            SIZE,
        )
        if chosen is None:
            print(f"{language}: no {SIZE:,} words under these rules")
            continue
        (target / f"words_{language}_{SIZE}.txt").write_text("\n".join(chosen) + "\n", "utf-8")
        letters = sum(map(len, chosen)) / SIZE
        least = min(z[w] for w in chosen)
        print(f"{language}: {SIZE:,} words, {letters:.2f} letters, each at least 10^{least:.1f}")


def dictionary(language: str, site: Path, modules: Path) -> list[str]:
    """Base forms: of German its nouns, of the others the entries of their spelling dictionary."""
    if language == "de":
        with (site / "german_nouns/nouns.csv").open(encoding="utf-8", newline="") as file:
            rows = [row for row in csv.DictReader(file) if row["pos"] == "Substantiv"]
        return sorted({row["lemma"].lower() for row in rows})
    text = (modules / f"dictionary-{language}/index.dic").read_text("utf-8")
    entries = [line.split("\t")[0].split(" ")[0].split("/") for line in text.splitlines()[1:]]
    return sorted({entry[0] for entry in entries if entry[0] == entry[0].lower()})


def is_base_form(word: str, language: str) -> bool:
    """As a dictionary lists it; of a Russian one that it is no name and no place either."""
    if language == "de":
        return True
    if simplemma.lemmatize(word, lang=language) != word:
        return False
    if language != "ru":
        return True
    first = _RUSSIAN.parse(word)[0]
    kinds = {"NOUN", "ADJF", "INFN"}
    named = {"Name", "Surn", "Patr", "Geox", "Orgn", "Abbr"}
    return (
        first.normal_form == word
        and first.tag.POS in kinds
        and not named & set(first.tag.grammemes)
    )


def names() -> set[str]:
    """Given names, surnames and places, whatever language they are of."""
    found: set[str] = set()
    for name in ("given_names", "surnames", "names_abroad", "places", "proper_names"):
        text = gzip.decompress((SHIPPED / f"{name}.txt.gz").read_bytes()).decode("utf-8")
        found.update(line.split("\t")[0].lower() for line in text.splitlines())
    return found


def offence(language: str, modules: Path) -> set[str]:
    """What any of the three lists holds for the language, or for English."""
    found: set[str] = set()
    for one in (language, "en"):
        for path in (
            modules / f"naughty-words/{one}.json",
            modules / f"leo-profanity/dictionary/{'default' if one == 'en' else one}.json",
        ):
            if path.exists():
                found.update(w.lower() for w in json.loads(path.read_text("utf-8")))
        cuss = modules / ("cuss/index.js" if one == "en" else f"cuss/{one}.js")
        if cuss.exists():
            found.update(
                re.findall(r"^  '?([^\s':]+)'?: \d", cuss.read_text("utf-8"), re.MULTILINE)
            )
    return found


def denied(language: str) -> set[str]:
    """What a reader left out."""
    text = Path(__file__).with_name("deny_words_abroad.txt").read_text("utf-8")
    lines = (line.split() for line in text.splitlines() if not line.startswith("#"))
    return {word for line in lines if line[:1] == [language] for word in line[1:]}


def bare(word: str) -> str:
    """Without its accents; ß as it is typed without."""
    apart = unicodedata.normalize("NFD", word.replace("ß", "ss"))
    return "".join(c for c in apart if not unicodedata.combining(c))


def sounds(language: str, words: Collection[str]) -> dict[str, str]:
    """How each is said, without its stress."""
    ordered = sorted(words)
    command = ["espeak-ng", "-q", "--ipa", "-v", VOICE[language]]
    said = subprocess.run(
        command, input="\n".join(ordered), capture_output=True, text=True, check=True
    )
    lines = said.stdout.splitlines()
    assert len(lines) == len(ordered), (len(lines), len(ordered))
    return {
        w: re.sub(r"[ˈˌː ]|\([a-z]+\)", "", line) for w, line in zip(ordered, lines, strict=True)
    }


def grouped(words: Iterable[str], said: dict[str, str]) -> list[list[str]]:
    """Words that sound the same."""
    by: dict[str, list[str]] = defaultdict(list)
    for word in words:
        by[said[word]].append(word)
    return list(by.values())


if __name__ == "__main__":
    main(*(Path(a) for a in sys.argv[1:4]))
