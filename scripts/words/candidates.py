"""Which words may stand in a list at all: common, plain, no names, nothing grim or offensive."""

import re
from functools import cached_property

from scripts.words.sources import PLAIN, Sources
from scripts.words.wordnet import WordNet

LETTERS = range(3, 10)
COMMON_LEAST = 1.7
GRIM = -1.5
_KEPT_OUT = """death:1 killing:2 disease:1 illness:1 injury:1 crime:1 sexual_activity:1
reproductive_organ:1 body_waste:1 drug_of_abuse:1 suffering:1 execution:1 firearm:1 explosive:1
weapon_of_mass_destruction:1 mental_disorder:1 pain:1 corpse:1 criminal:1 bad_person:1 prostitute:1
slave:1 terrorist:1 unpleasant_person:1 parasite:1 defecation:1 symptom:1 wound:1 opiate:1
hallucinogen:1 buttocks:1 religious_person:1 deity:1 poison:1 bomb:1 ethnic_group:1 torture:1
punishment:1 sexual_practice:1 undergarment:1 fetus:1 tumor:1 cemetery:1 perversion:2"""
_LET_IN = set(
    """pirate ogre hermit smoothie monk nun friar abbot mistletoe hiccup joker trickster puppet
    runner climber sunburn redness dizziness uplift shimmy nightgown petticoat twitch
    immortal guru serpent""".split()
)
_PLACES = """country:2 state:1 city:1 calendar_month:1 day_of_the_week:1 language:1 continent:1
island:1 river:1"""
_THINGS = {
    f"noun.{f}" for f in """animal plant food artifact object substance phenomenon shape""".split()
}
_HARD_TO_SPELL = re.compile(
    r"ough|eigh|^ps|^pn|^gn|^mn|^pt|^rh|rrh|eau|eur$|oeu|aeo|uous$|cqu|^xy|phth|chth|sch[^o]"
    r"|[^aeiou]ieu|gue$|que$|mn$|cea|iae|yz|scious|ious$|eous$|ible$|able$|ence$|ance$|ency$"
    r"|ancy$|ie[rv]e|eive"
)
COMMON_ENOUGH_TO_SPELL = 3.6
SOUND_ALIKE_GAP = 1.0
EVERYDAY_ING = 2.8


class Candidates:
    """The filters that look at one word alone."""

    def __init__(self, sources: Sources, wordnet: WordNet) -> None:
        self.sources, self.wordnet = sources, wordnet

    def words(self) -> list[str]:
        """Every word that passes, most common first."""
        s, w = self.sources, self.wordnet
        found = []
        for word, size in s.size.items():
            if size > 60 or len(word) not in LETTERS or s.commonness(word) < COMMON_LEAST:
                continue
            is_entry = w.is_known(word) and not self.inflected(word)
            if not (is_entry or self._everyday_ing(word)) or not self.is_decent(word):
                continue
            if not self.sounds(word) or self._sounds_like_a_common_one(word):
                continue
            if s.commonness(word) < COMMON_ENOUGH_TO_SPELL and _HARD_TO_SPELL.search(word):
                continue
            found.append(word)
        return sorted(found, key=lambda word: (-s.commonness(word), word))

    def is_decent(self, word: str) -> bool:
        """Neither name nor offence nor grim, and spelt in one way everywhere."""
        s = self.sources
        return (
            PLAIN.fullmatch(word) is not None
            and word not in s.local
            and word not in s.two_spellings
            and word not in s.offence
            and word + "s" not in s.offence
            and s.tone.get(word, 0.0) > GRIM
            and word not in self._grim_things
            and word not in s.denied
            and not self.is_name(word)
        )

    @cached_property
    def _grim_things(self) -> set[str]:
        """Words whose first sense as a noun lies under a grim one, and that are used as nouns."""
        w = self.wordnet
        found: set[str] = set()
        for root in _KEPT_OUT.split():
            head, _, number = root.partition(":")
            for key in w.below(head, "n", int(number)):
                for word in w.sense[key].words:
                    keys = w.keys(word, "n")
                    if not PLAIN.fullmatch(word) or not keys or keys[0] != key:
                        continue
                    all_uses = sum(w.uses(word, part) for part in "nvar")
                    if not all_uses or w.uses(word, "n") >= 0.4 * all_uses:
                        found.add(word)
        return found - _LET_IN

    @cached_property
    def _place_names(self) -> set[str]:
        w = self.wordnet
        found: set[str] = set()
        for root in _PLACES.split():
            head, _, number = root.partition(":")
            for key in w.below(head, "n", int(number)):
                found.update(x.lower() for x in w.sense[key].words if x[:1].isupper())
        return found

    def is_name(self, word: str) -> bool:
        """Whether people would take it for a person's or place's name."""
        s, w = self.sources, self.wordnet
        given, surnames = s.name_ranks
        rank, size = given.get(word, 9999), s.capital.get(word, 99)
        films = s.capital_in_films(word)
        keys = [key for part in "nvar" for key in w.keys(word, part)]
        plain = [key for key in keys if word in w.sense[key].words]
        uses = sum(w.uses_of(word, key) for key in plain)
        if rank <= 600 and (size <= 70 or films):
            return True
        if keys and not plain:
            return True
        if size <= 70 and word in self._place_names and uses < 25:
            return True
        first = w.first(word, "n")
        if first is not None and first.lexical_field in _THINGS and rank > 1000:
            return False
        return (
            (films and size <= 80 and word in surnames and uses < 20)
            or (films and size <= 50 and uses < 20)
            or (size <= 50 and uses < 3 and rank < 9999)
            or (rank <= 1500 and uses < 5)
        )

    def inflected(self, word: str) -> bool:
        """Whether it is mainly an inflected form of another entry."""
        w = self.wordnet
        uses = {part: w.uses(word, part) for part in "nvar"}
        plural = word.endswith("s") and not word.endswith("ss")
        if (plural or word in w.irregular["n"]) and w.bases(word, "n"):
            return True
        if w.bases(word, "v"):
            if plural or word.endswith("ed") or (word.endswith("ing") and uses["n"] < 5):
                return True
            if word in w.irregular["v"] and (
                sum(uses.values()) < 5 or not uses["v"] + uses["n"] // 5
            ):
                return True
        return bool(w.bases(word, "a")) and word.endswith(("er", "est")) and uses["n"] < 3

    def _everyday_ing(self, word: str) -> bool:
        s = self.sources
        if not word.endswith("ing") or len(word) < 6 or s.size[word] > 50:
            return False
        bases = self.wordnet.bases(word, "v")
        decent = all(
            b not in s.offence
            and s.tone.get(b, 0.0) > GRIM
            and b not in self._grim_things
            and b not in s.denied
            for b in bases
        )
        return s.commonness(word) >= EVERYDAY_ING and bool(bases) and decent

    def sounds(self, word: str) -> frozenset[str]:
        """How it is said; a compound that the dictionary lacks is said as its two words."""
        known = self.sources.sounds.get(word)
        if known:
            return known
        s = self.sources
        halves = [
            (word[:i], word[i:])
            for i in range(3, len(word) - 2)
            if all(s.size.get(h, 99) <= 35 and h in s.sounds for h in (word[:i], word[i:]))
        ]
        if not halves:
            return frozenset()
        a, b = max(halves, key=lambda h: min(map(s.commonness, h)))
        return frozenset(f"{x} {y}" for x in s.sounds[a] for y in s.sounds[b])

    @cached_property
    def _said_alike(self) -> dict[str, set[str]]:
        s = self.sources
        by_sound: dict[str, set[str]] = {}
        for word, ways in s.sounds.items():
            if (s.size.get(word, 99) <= 60 or word in s.local) and s.commonness(word) >= 1.8:
                for way in ways:
                    by_sound.setdefault(re.sub(r"\d", "", way), set()).add(word)
        found: dict[str, set[str]] = {}
        for words in by_sound.values():
            for word in words:
                found.setdefault(word, set()).update(words - {word})
        return found

    def _sounds_like_a_common_one(self, word: str) -> bool:
        s = self.sources
        least = s.commonness(word) - SOUND_ALIKE_GAP
        return any(s.commonness(other) >= least for other in self._said_alike.get(word, ()))
