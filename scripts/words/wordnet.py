"""WordNet 3.0 as its own files have it (Debian `wordnet-base`): senses, fields, uses."""

import re
from dataclasses import dataclass, field
from functools import cached_property
from pathlib import Path

FIELDS = """adj.all adj.pert adv.all noun.Tops noun.act noun.animal noun.artifact noun.attribute
    noun.body noun.cognition noun.communication noun.event noun.feeling noun.food noun.group
    noun.location noun.motive noun.object noun.person noun.phenomenon noun.plant
    noun.possession noun.process noun.quantity noun.relation noun.shape noun.state
    noun.substance noun.time verb.body verb.change verb.cognition verb.communication
    verb.competition verb.consumption verb.contact verb.creation verb.emotion verb.motion
    verb.perception verb.possession verb.social verb.stative verb.weather adj.ppl""".split()
_FILES = {"n": "noun", "v": "verb", "a": "adj", "r": "adv"}
_KIND_NUMBER = {"n": 1, "v": 2, "a": 3, "r": 4, "s": 5}
_ENDINGS = {
    "n": "s: ses:s xes:x zes:z ches:ch shes:sh men:man ies:y ves:f ves:fe",
    "v": "s: ies:y es:e es: ed:e ed: ing:e ing:",
    "a": "er: est: er:e est:e ier:y iest:y",
    "r": "",
}


@dataclass(slots=True)
class Sense:
    """One set of synonyms. pointers: (mark, target key, source word no., target word no.)."""

    lexical_field: str
    kind: str
    words: list[str]
    marks: list[str]
    lexical_ids: list[int]
    pointers: list[tuple[str, str, int, int]]
    frames: list[tuple[int, int]] = field(default_factory=list)
    gloss: str = ""


class WordNet:
    """Senses by key, and the keys of a word in a part of speech (`n`, `v`, `a`, `r`)."""

    def __init__(self, folder: Path) -> None:
        self.sense: dict[str, Sense] = {}
        self._index: dict[tuple[str, str], list[str]] = {}
        self.irregular: dict[str, dict[str, list[str]]] = {}
        self._counts: dict[str, int] = {}
        for line in (folder / "cntlist.rev").read_text().splitlines():
            key, _, count = line.split()
            self._counts[key] = int(count)
        for part, name in _FILES.items():
            for line in (folder / f"data.{name}").read_text("utf-8").splitlines():
                if not line.startswith("  "):
                    self._read_sense(part, line)
            for line in (folder / f"index.{name}").read_text("utf-8").splitlines():
                if not line.startswith("  "):
                    t = line.split()
                    self._index[t[0], part] = [part + o for o in t[int(t[3]) + 6 :]]
            lines = (folder / f"{name}.exc").read_text("utf-8").splitlines()
            self.irregular[part] = {t[0]: t[1:] for t in (line.split() for line in lines)}

    def _read_sense(self, part: str, line: str) -> None:
        body, _, gloss = line.partition("|")
        t = body.split()
        size = int(t[3], 16)
        words, marks = [], []
        for shown in t[4 : 4 + 2 * size : 2]:
            found = re.fullmatch(r"(.*)\((a|p|ip)\)", shown)
            words.append(found[1] if found else shown)
            marks.append(found[2] if found else "")
        at = 4 + 2 * size
        count = int(t[at])
        pointers = []
        for i in range(at + 1, at + 1 + 4 * count, 4):
            pointers.append(
                (t[i], t[i + 2] + t[i + 1], int(t[i + 3][:2], 16), int(t[i + 3][2:], 16))
            )
        at += 1 + 4 * count
        frames = []
        if part == "v" and at < len(t):
            for i in range(at + 1, at + 1 + 3 * int(t[at]), 3):
                frames.append((int(t[i + 1]), int(t[i + 2], 16)))
        ids = [int(x, 16) for x in t[5 : 5 + 2 * size : 2]]
        self.sense[part + t[0]] = Sense(
            FIELDS[int(t[1])], t[2], words, marks, ids, pointers, frames, gloss.strip()
        )

    def keys(self, word: str, part: str) -> list[str]:
        """The keys of a word's senses, most used first."""
        return self._index.get((word, part), [])

    def words(self, part: str) -> list[str]:
        """All words of a part of speech."""
        return [word for word, p in self._index if p == part]

    def first(self, word: str, part: str) -> Sense | None:
        """The first sense, where it writes the word in lower case."""
        keys = self.keys(word, part)
        found = self.sense[keys[0]] if keys else None
        return found if found and word in found.words else None

    def below(self, word: str, part: str, number: int) -> set[str]:
        """The keys of a sense and of all that are kinds or instances of it."""
        keys = self.keys(word, part)
        waiting = [keys[number - 1]] if len(keys) >= number else []
        seen: set[str] = set()
        while waiting:
            key = waiting.pop()
            if key not in seen:
                seen.add(key)
                waiting.extend(p[1] for p in self.sense[key].pointers if p[0] in ("~", "~i"))
        return seen

    @cached_property
    def _satellite_counts(self) -> dict[str, int]:
        found: dict[str, int] = {}
        for key, count in self._counts.items():
            if "%5:" in key:
                head = ":".join(key.split(":")[:3]) + ":"
                found[head] = found.get(head, 0) + count
        return found

    def uses_of(self, word: str, key: str) -> int:
        """How often the tagged texts use the word in that sense."""
        one = self.sense[key]
        for known, number in zip(one.words, one.lexical_ids, strict=True):
            if known.lower() == word:
                kind = _KIND_NUMBER[one.kind]
                head = f"{word}%{kind}:{FIELDS.index(one.lexical_field):02d}:{number:02d}:"
                if kind == 5:
                    return self._satellite_counts.get(head, 0)
                return self._counts.get(head + ":", 0)
        return 0

    def uses(self, word: str, part: str) -> int:
        """How often the tagged texts use the word as that part of speech."""
        return sum(self.uses_of(word, key) for key in self.keys(word, part))

    def is_known(self, word: str) -> bool:
        """Whether it heads an entry."""
        return any((word, part) in self._index for part in _FILES)

    def bases(self, word: str, part: str) -> list[str]:
        """Other entries that it may be an inflected form of."""
        found = [b for b in self.irregular[part].get(word, []) if b != word and self.keys(b, part)]
        for rule in _ENDINGS[part].split():
            ending, _, instead = rule.partition(":")
            if not word.endswith(ending) or len(word) <= len(ending) + 1:
                continue
            base = word[: -len(ending)] + instead
            if base != word and self.keys(base, part):
                found.append(base)
            doubled = part in "va" and not instead and len(base) > 3 and base[-1] == base[-2]
            if doubled and self.keys(base[:-1], part):
                found.append(base[:-1])
        return found
