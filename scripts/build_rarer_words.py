"""Rebuilds `core/data/languages/rarer_words.bin`: words beyond the ranked lists, by their shape.

Sources: Debian `scowl`; PyPI `wordsegment` 1.3.1, `wordfreq` 3.1 (its data CC BY-SA 4.0, and so the
file), `names` 0.3.0, `pypinyin` 0.55. Run by the Python into which those are installed, with
`src` on its path.

    build_rarer_words.py SCOWL_FOLDER SITE_PACKAGES
"""

import importlib
import math
import re
import sys
import unicodedata
from collections.abc import Iterable, Iterator
from pathlib import Path

import numpy as np

sys.path.insert(0, str(Path(__file__).parents[1]))

from newknot.core.shipped import shipped_bytes
from newknot.core.strength.dictionaries import LISTS
from newknot.core.strength.rarer_words import MOST, SHORTEST, hash_of, packed
from newknot.core.strength.reading import shape_of_letters
from scripts.build_dictionaries import PLAIN, scowl_words, web

TARGET = Path(__file__).parents[1] / "src/newknot/core/data/languages/rarer_words.bin"
LONGEST = 20
LEAST = {70: 2e-8, 80: 5e-9, 95: 1e-9}
"""The probability of a word that no count holds, by the least of the lists that do."""
LANGUAGES = {
    **dict.fromkeys(("de", "es", "fr"), (0.12, 40_000)),
    **dict.fromkeys(("it", "pt", "pl", "nl"), (0.08, 30_000)),
    **dict.fromkeys(("sv", "tr", "ru", "cs", "fi", "nb", "da", "ro"), (0.05, 20_000)),
    **dict.fromkeys(("hu", "id", "vi"), (0.05, 20_000)),
    **dict.fromkeys(("ca", "sh", "sk", "sl", "lt", "lv", "is", "el", "uk", "bg"), (0.03, 12_000)),
    **dict.fromkeys(("ms", "fil", "mk"), (0.03, 12_000)),
    **dict.fromkeys(("ja", "ko", "zh"), (0.08, 20_000)),
}
"""Weight beside English, and how many of the commonest words."""
CYRILLIC = dict(
    zip(
        "абвгдеёжзийклмнопрстуфхцчшщъыьэюяєіїґ",
        (
            *("a", "b", "v", "g", "d", "e", "yo", "zh", "z", "i", "y", "k", "l", "m", "n", "o"),
            *("p", "r", "s", "t", "u", "f", "kh", "ts", "ch", "sh", "shch", "", "y", "", "e"),
            *("yu", "ya", "ye", "i", "yi", "g"),
        ),
        strict=True,
    )
)
GREEK = dict(
    zip(
        "αβγδεζηθικλμνξοπρσςτυφχψω",
        (
            *("a", "v", "g", "d", "e", "z", "i", "th", "i", "k", "l", "m", "n", "x", "o", "p", "r"),
            *("s", "s", "t", "y", "f", "ch", "ps", "o"),
        ),
        strict=True,
    )
)
KANA = (
    "あa いi うu えe おo かka きki くku けke こko さsa しshi すsu せse そso たta ちchi つtsu てte "
    "とto なna にni ぬnu ねne のno はha ひhi ふfu へhe ほho まma みmi むmu めme もmo やya ゆyu "
    "よyo らra りri るru れre ろro わwa をwo んn がga ぎgi ぐgu げge ごgo ざza じji ずzu ぜze ぞzo "
    "だda ぢji づzu でde どdo ばba びbi ぶbu べbe ぼbo ぱpa ぴpi ぷpu ぺpe ぽpo"
)
SYLLABLES = {pair[0]: pair[1:] for pair in KANA.split()}
SMALL = {"ゃ": "a", "ゅ": "u", "ょ": "o"}
INITIALS = "g kk n d tt r m b pp s ss - j jj ch k t p h".split()
VOWELS = "a ae ya yae eo e yeo ye o wa wae oe yo u wo we wi yu eu ui i".split()
FINALS = "- k k k n n n t l k m l l l p l m p p t t ng t t k t p t".split()


def romanised(code: str, word: str) -> str:
    """A word in the letters a to z as people write it there, or as it is."""
    if code in ("ru", "uk", "bg", "mk"):
        return "".join(CYRILLIC.get(c, c) for c in word)
    if code == "el":
        bare = "".join(
            c for c in unicodedata.normalize("NFD", word) if unicodedata.category(c) != "Mn"
        )
        return "".join(GREEK.get(c, c) for c in bare.replace("ου", "ou"))
    if code == "vi":
        bare = unicodedata.normalize("NFD", word).replace("đ", "d")
        return "".join(c for c in bare if unicodedata.category(c) != "Mn")
    if code == "ko":
        return "".join(_hangul(c) for c in word)
    return _kana(word) if code == "ja" else word


def _hangul(c: str) -> str:
    at = ord(c) - 0xAC00
    if not 0 <= at < 11_172:
        return "?"
    parts = INITIALS[at // 588], VOWELS[at % 588 // 28], FINALS[at % 28]
    return "".join(parts).replace("-", "")


def _kana(word: str) -> str:
    said = ""
    for c in word:
        c = chr(ord(c) - 0x60) if "ァ" <= c <= "ヶ" else c
        if c in SMALL and said.endswith("i"):
            stem = said[:-1]
            said = stem + ("" if stem.endswith(("sh", "ch", "j")) else "y") + SMALL[c]
        elif c != "ー":
            said += SYLLABLES.get(c, "?")
    return said


def english(scowl: Path, packages: Path) -> Iterator[tuple[str, float]]:
    """Words of the greatest word lists and the commonest forms, with their probabilities."""
    wordfreq = importlib.import_module("wordfreq")
    counts = web(packages, "unigrams.txt")
    total = sum(counts.values())
    every = set[str]()
    least: dict[str, float] = {}
    for largest, chance in LEAST.items():
        found = {w.lower() for w in scowl_words(scowl, kinds=("-words", "-upper"), largest=largest)}
        least.update(dict.fromkeys(found - every, chance))
        every |= found
    held = wordfreq.get_frequency_dict("en")
    every |= set(sorted(held, key=held.__getitem__, reverse=True)[:120_000])
    for word in every:
        if PLAIN.fullmatch(word):
            known = held.get(word, 0.0), counts.get(word, 0) / total
            counted = max(math.sqrt(known[0] * known[1]), known[0] / 4, known[1] / 40)
            yield word, 3 * max(least.get(word, 0.0), counted)


def abroad() -> Iterator[tuple[str, float]]:
    """Words of other languages, romanised too."""
    wordfreq = importlib.import_module("wordfreq")
    pinyin = importlib.import_module("pypinyin")
    for code, (weight, most) in LANGUAGES.items():
        held = wordfreq.get_frequency_dict(code)
        for word in sorted(held, key=held.__getitem__, reverse=True)[:most]:
            if not word.isalpha():
                continue
            chance = weight * held[word]
            said = "".join(pinyin.lazy_pinyin(word)) if code == "zh" else romanised(code, word)
            yield said, chance
            if said != word and code in ("ru", "uk", "el", "bg", "mk", "vi"):
                yield word, chance / 2


def surnames(packages: Path) -> Iterator[tuple[str, float]]:
    """Family names beyond the ranked ones, by their share of the population."""
    for line in (packages / "names/dist.all.last").read_text().splitlines():
        name, percent = line.split()[:2]
        yield name.lower(), 0.05 * float(percent) / 100


def main(scowl: Path, packages: Path) -> None:
    """Writes the file."""
    held = {
        shape
        for one in LISTS
        for shape in shape_of_letters(shipped_bytes(one.file).decode("utf-8")).split()
    }
    chances: dict[str, float] = {}
    found: Iterable[tuple[str, float]]
    for found in (english(scowl, packages), abroad(), surnames(packages)):
        for word, chance in found:
            shape = shape_of_letters(word)
            fits = SHORTEST <= len(shape) <= LONGEST and re.fullmatch(r"[^\W\d_]+", shape)
            if fits and shape not in held:
                chances[shape] = chances.get(shape, 0.0) + chance
    ranked = sorted(chances, key=lambda shape: (-chances[shape], shape))[:MOST]
    print(f"{len(chances):,} words, of which {len(ranked):,} are kept")
    for at in (0, 1000, 10_000, 100_000, len(ranked) - 1):
        print(at, ranked[at : at + 12])
    hashes = np.array([hash_of(shape) for shape in ranked], dtype=np.uint64)
    assert len(np.unique(hashes)) == len(ranked), "two words of one hash"
    TARGET.write_bytes(packed(hashes))


if __name__ == "__main__":
    main(Path(sys.argv[1]), Path(sys.argv[2]))
