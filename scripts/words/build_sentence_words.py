"""Rebuilds `sentence_*.txt` in `core/data`: the words that sentences are drawn from.

1,024 nouns (with plural), 1,024 adjectives, 512 verbs (past), 256 adverbs of manner, 256 places.
Forms within a kind are distinct, two slips apart, do not sound alike and are not of one family.
Two inflection libraries must agree on a form.

    python -m scripts.words.build_sentence_words SCOWL WORDNET SITE_PACKAGES NODE_MODULES TARGET

Beside the packages named in `build_passphrase_words`: `inflect` 7.6.0.
"""

import re
import sys
from collections import defaultdict
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

import inflect
import lemminflect

from scripts.words.candidates import GRIM, Candidates
from scripts.words.conflicts import best, one_family, said_alike, slips
from scripts.words.sources import Sources
from scripts.words.wordnet import WordNet

SIZES = {"noun": 1024, "adj": 1024, "verb": 512, "adv": 256, "place": 256}
_NOUN_FIELDS = {
    f"noun.{f}" for f in ["animal", "artifact", "food", "plant", "object", "person", "body"]
}
_LIVELY = {"noun.animal", "noun.person", "noun.food"}
_VERB_FIELDS = {
    f"verb.{f}"
    for f in """contact motion creation consumption perception competition social communication body
    change possession emotion cognition""".split()
}
_BODILY = {
    "contact": 0.8, "creation": 0.6, "consumption": 0.6, "motion": 0.4, "competition": 0.4,
    "perception": 0.4, "body": 0.3, "emotion": 0.3, "social": 0.2, "communication": 0.1,
}  # fmt: skip
_PLACE_ROOTS = """building:1 room:1 container:1 vehicle:1 geological_formation:1 tract:1
body_of_water:1 structure:1 facility:1 area:5 furniture:1 land:4 vegetation:1 establishment:4
workplace:1 dwelling:1 shop:1 yard:2 way:6 region:3"""
_BY_MANNER = re.compile(
    r"\bin an?\b.*\b(manner|way|fashion|style|voice|tone|spirit|mood)\b"
    r"|\bwith(out)?\b|\bin a\b|\bby\b"
)
OBJECT_FRAMES = {8, 9}
"""WordNet's sentence frames "Somebody ----s something" and "Somebody ----s somebody"."""


@dataclass(frozen=True, slots=True)
class Entry:
    """A word with the form that a sentence shows, and how well it pictures."""

    form: str
    worth: float


class Kinds:
    """The candidates for each place in a sentence."""

    def __init__(self, candidates: Candidates, deny: dict[str, set[str]]) -> None:
        self._c, self._s, self._w = candidates, candidates.sources, candidates.wordnet
        self._deny = deny
        self._inflect = inflect.engine()

    def all(self) -> dict[str, dict[str, Entry]]:
        """The entries of each kind by word."""
        makers: dict[str, tuple[str, range, float, Callable[[str], Entry | None]]] = {
            "noun": ("n", range(3, 12), 2.3, self._noun),
            "adj": ("a", range(3, 12), 2.3, self._adjective),
            "verb": ("v", range(3, 11), 2.3, self._verb),
            "adv": ("r", range(5, 14), 1.7, self._adverb),
            "place": ("n", range(3, 12), 1.7, self._place),
        }
        found: dict[str, dict[str, Entry]] = {}
        for kind, (part, letters, least, make) in makers.items():
            found[kind] = {}
            for word in self._w.words(part):
                if len(word) not in letters or self._s.size.get(word, 99) > 60:
                    continue
                if self._s.commonness(word) < least or not self._c.is_decent(word):
                    continue
                if word in self._deny["any"] or word in self._deny[kind]:
                    continue
                entry = make(word)
                if entry is not None:
                    found[kind][word] = entry
        return found

    def _mainly(self, word: str, part: str, share: float) -> bool:
        """Whether it is mostly used as that part of speech."""
        uses = {p: self._w.uses(word, p) for p in "nvar"}
        if sum(uses.values()) >= 3:
            return uses[part] >= share * sum(uses.values())
        senses = {p: len(self._w.keys(word, p)) for p in "nvar"}
        return senses[part] == max(senses.values())

    def _thing(self, word: str) -> bool:
        first = self._w.first(word, "n")
        return (
            first is not None
            and self._mainly(word, "n", 0.6)
            and not any(p[0] == "@i" for p in first.pointers)
            and not self._c.inflected(word)
        )

    def _noun(self, word: str) -> Entry | None:
        s, first = self._s, self._w.first(word, "n")
        if first is None or first.lexical_field not in _NOUN_FIELDS or not self._thing(word):
            return None
        forms = lemminflect.getInflection(word, "NNS")
        plural = self._inflect.plural_noun(word)
        if not forms or forms[0] != plural or plural == word:
            return None
        if s.size.get(plural, 99) > 70 or plural in s.local or plural in s.offence:
            return None
        web = s.web_count(plural) / (s.web_count(word) + 1)
        film = (s.film_count(plural) + 0.1) / (s.film_count(word) + 1)
        if web < 0.04 or film < 0.02 or (self._w.is_known(plural) and web > 3):
            return None
        seen, touched, _ = s.senses.get(word, (0.0, 0.0, 0.0))
        if max(seen, touched) < 2.5:
            return None
        lively = 0.3 if first.lexical_field in _LIVELY else 0.0
        return Entry(plural, self._plain_worth(word, 0.6, 4) + 0.5 * seen + lively)

    def _adjective(self, word: str) -> Entry | None:
        w = self._w
        if not self._mainly(word, "a", 0.55):
            return None
        participle = word.endswith(("ed", "ing")) or word in w.irregular["v"]
        other = w.keys(word, "n") or w.keys(word, "v")
        if w.uses(word, "a") < 1 and (other or participle):
            return None
        sense = w.sense[w.keys(word, "a")[0]]
        place = [x.lower() for x in sense.words].index(word)
        if sense.words[place] != word or sense.marks[place] in ("p", "ip"):
            return None
        related = any(p[0] == "\\" for p in sense.pointers)
        if sense.lexical_field == "adj.pert" or related:
            return None
        if word.endswith(("er", "est")) and w.bases(word, "a"):
            return None
        if word.endswith("ly") and w.keys(word, "r") and word[:-2] in self._s.size:
            return None
        strongest = self._s.senses.get(word, (0.0, 0.0, 0.0))[2]
        done = 0.4 if sense.lexical_field == "adj.ppl" else 0.0
        return Entry(word, self._plain_worth(word, 0.45, 4) + 0.9 * strongest - done)

    def _verb(self, word: str) -> Entry | None:
        s, w = self._s, self._w
        first = w.first(word, "v")
        if first is None or first.lexical_field not in _VERB_FIELDS or self._c.inflected(word):
            return None
        uses = {p: w.uses(word, p) for p in "nvar"}
        all_uses = sum(uses.values())
        senses = {p: len(w.keys(word, p)) for p in "nvar"}
        if uses["v"] < 1 or (all_uses >= 3 and uses["v"] < 0.3 * all_uses):
            return None
        if all_uses < 3 and senses["v"] < max(senses.values()):
            return None
        number = first.words.index(word) + 1
        frames = {f for f, n in first.frames if n in (0, number)}
        forms = {tag: set(lemminflect.getInflection(word, tag)) for tag in ("VBD", "VBZ")}
        if not frames & OBJECT_FRAMES or any(len(f) != 1 for f in forms.values()):
            return None
        past, now = forms["VBD"].pop(), forms["VBZ"].pop()
        living = past == word or s.web_count(past) / (s.web_count(word) + 1) >= 0.04
        if s.commonness(past) < 2.3 or not living:
            return None
        out = s.local | s.two_spellings | s.offence
        if any(s.size.get(form, 99) > 70 or form in out for form in (past, now)):
            return None
        worth = self._plain_worth(word, 0.45, 4.2) + 0.5 * s.senses.get(word, (0.0, 0.0, 0.0))[2]
        worth += 1.5 * _BODILY.get(first.lexical_field.removeprefix("verb."), 0.0)
        return Entry(past, worth - (0.4 if 2 in frames else 0.0) - (1.5 if 26 in frames else 0.0))

    def _adverb(self, word: str) -> Entry | None:
        s, w = self._s, self._w
        if not word.endswith("ly") or not self._mainly(word, "r", 0.6) or w.uses(word, "a") > 0:
            return None
        sense = w.sense[w.keys(word, "r")[0]]
        number = sense.words.index(word) + 1 if word in sense.words else 0
        adjectives = [
            w.sense[target].words[there - 1]
            for mark, target, here, there in sense.pointers
            if mark == "\\" and here in (0, number) and there
        ]
        if not adjectives or not _BY_MANNER.search(sense.gloss.split(";")[0]):
            return None
        adjective = adjectives[0].lower()
        if adjective in s.offence or adjective in self._deny["any"]:
            return None
        if s.tone.get(adjective, 0.0) <= GRIM:
            return None
        felt = 0.4 * s.senses.get(adjective, (0.0, 0.0, 1.0))[2]
        return Entry(word, self._plain_worth(word, 0.8, 3.6) + felt)

    def _place(self, word: str) -> Entry | None:
        seen = self._s.senses.get(word, (0.0, 0.0, 0.0))[0]
        if self._w.keys(word, "n")[0] not in self._enclosing or not self._thing(word) or seen < 2.5:
            return None
        return Entry(word, self._plain_worth(word, 0.8, 4) + 0.3 * seen)

    @property
    def _enclosing(self) -> set[str]:
        if not hasattr(self, "_places"):
            self._places: set[str] = set()
            for root in _PLACE_ROOTS.split():
                head, _, number = root.partition(":")
                self._places |= self._w.below(head, "n", int(number))
        return self._places

    def _plain_worth(self, word: str, weight: float, most: float) -> float:
        return weight * min(self._s.commonness(word), most) - 0.05 * len(word)


def main(scowl: Path, wordnet: Path, site_packages: Path, modules: Path, target: Path) -> None:
    here = Path(__file__).parent
    sources = Sources(scowl, site_packages, modules, here / "deny_words.txt")
    candidates = Candidates(sources, WordNet(wordnet))
    for kind, entries in Kinds(candidates, read_deny(here / "deny_in_sentences.txt")).all().items():
        words = sorted(entries)
        by_form: dict[str, set[str]] = defaultdict(set)
        for word in words:
            by_form[entries[word].form].add(word)
            if word in by_form or kind == "noun":
                by_form[word].add(word)
        groups = said_alike(words, candidates.sounds) + one_family(words)
        groups += [sorted(g) for g in by_form.values() if len(g) > 1]
        worth = {word: round(entries[word].worth, 6) for word in words}
        chosen = best(words, slips(words), groups, worth, SIZES[kind])
        if chosen is None:
            sys.exit(f"no {SIZES[kind]:,} of kind {kind} under these rules")
        lines = [w if w == entries[w].form else f"{w} {entries[w].form}" for w in chosen]
        (target / f"sentence_{kind}.txt").write_text("\n".join(lines) + "\n", "utf-8")
        print(f"{kind}: {len(words):,} candidates, {len(chosen):,} chosen")


def read_deny(path: Path) -> dict[str, set[str]]:
    """The words that a sentence may not have, by kind and `any`."""
    found: dict[str, set[str]] = defaultdict(set)
    for line in path.read_text("utf-8").splitlines():
        kind, *words = line.split()
        found[kind].update(words)
    return found


if __name__ == "__main__":
    main(*(Path(a) for a in sys.argv[1:6]))
