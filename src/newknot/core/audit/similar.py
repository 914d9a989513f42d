"""Similar: secrets made of one another by a letter, an ending, the site's name, a date or a word.

No two secrets are compared for being in one vault: each gives some keys, and those that share a key
are alike. The work is linear in the keys.
"""

import unicodedata
from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from operator import is_

from newknot.core.audit.audited import AuditedLogin, Measured
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.audit.reused import by_secret
from newknot.core.audit.similar_keys import (
    SAYS,
    Alike,
    keys_of,
    letters_of,
    plain,
    site_names,
    words_of,
)
from newknot.core.policy.kept_text import kept_text
from newknot.core.strength.reading import read

_ONE_WORD_MOST = 12
"""Letters in a row; longer ones may be words run together, which are not counted."""
_NAMED_MOST = 50
_RANK = {kind: at for at, kind in enumerate(Alike)}
_NEAR = _RANK[Alike.LETTERS]
"""Up to here the nearest is told at once."""


@dataclass(frozen=True, slots=True, eq=False)
class Text:
    """One secret of the vault, as its sites keep it, with the logins that have it."""

    members: tuple[Measured, ...]
    text: str
    low: str
    letters: str
    keys: tuple[str, ...]


class Likenesses:
    """The secrets of a vault by their keys, brought up to date by what came and went."""

    def __init__(self) -> None:
        self._texts: dict[str, Text] = {}
        # Most keys are of one text alone, which then stands for itself.
        self._by_key: dict[str, Text | list[Text]] = {}
        self._shared: set[str] = set()
        self._group_of: dict[Text, list[Text]] = {}

    def groups(self, by_secret: Iterable[Sequence[Measured]]) -> list[list[Text]]:
        """Groups of secrets that are like each other, each secret with the logins that have it.

        by_secret: the logins of each secret.
        """
        texts = dict(map(self._read, by_secret))
        came = set(texts.values()) - set(self._texts.values())
        went = set(self._texts.values()) - set(texts.values())
        self._texts = texts
        touched = dict.fromkeys(came)
        groups: dict[int, list[Text]] = {}
        for text in went:
            group = self._group_of.pop(text)
            groups[id(group)] = group
            for key in text.keys:
                held = self._by_key[key]
                if isinstance(held, list) and len(held) > 1:
                    held.remove(text)
                else:
                    del self._by_key[key]
                    self._shared.discard(key)
        for text in came:
            for key in text.keys:
                beside = self._by_key.setdefault(key, text)
                if beside is text:
                    continue
                first = beside[0] if isinstance(beside, list) else beside
                # Those that have a key are of one group, and those of before stand first.
                of_before = self._group_of.get(first)
                if of_before is not None:
                    groups[id(of_before)] = of_before
                if isinstance(beside, list):
                    beside.append(text)
                else:
                    self._by_key[key] = [beside, text]
                    self._shared.add(key)
        for group in groups.values():
            touched.update(dict.fromkeys(group))
        for text in went:
            touched.pop(text, None)
        self._tie(touched)
        found = {id(group): group for group in self._group_of.values() if len(group) > 1}
        return sorted(found.values(), key=lambda group: group[0].members[0].login.login_id)

    def _read(self, members: Sequence[Measured]) -> tuple[str, Text]:
        first = members[0].login.login_id
        text = self._texts.get(first)
        same = text is not None and len(text.members) == len(members)
        if text is None or not same or not all(map(is_, text.members, members)):
            text = _read(members)
        return first, text

    def _tie(self, touched: Iterable[Text]) -> None:
        """The groups of these texts anew: all that share a key, directly or through others."""
        placed: set[Text] = set()
        asked: set[str] = set()
        for text in touched:
            if text in placed:
                continue
            placed.add(text)
            group = [text]
            for one in group:
                for key in self._shared.intersection(one.keys) - asked:
                    asked.add(key)
                    held = self._by_key[key]
                    assert isinstance(held, list)
                    new = [other for other in held if other not in placed]
                    placed.update(new)
                    group += new
            group.sort(key=lambda text: (text.letters, text.low, text.members[0].login.login_id))
            self._group_of.update(dict.fromkeys(group, group))


@dataclass(frozen=True, slots=True)
class AlikeLeft:
    """Of some logins those that are alike, in groups, and the finding of each by its login id."""

    groups: tuple[tuple[str, ...], ...]
    findings: dict[str, Finding]


def alike_left(logins: Iterable[AuditedLogin]) -> AlikeLeft:
    """What a check of these alone finds alike; how strong they are is not asked."""
    found = Likenesses().groups(by_secret([Measured(one, None, None) for one in logins]).values())
    members = ([m.login.login_id for text in group for m in text.members] for group in found)
    findings = (finding for group in found for finding in similar(group))
    return AlikeLeft(tuple(map(tuple, members)), {one.login_id: one for one in findings})


def similar(group: Sequence[Text]) -> Iterator[Finding]:
    """One finding for each login of a group whose secret is like another's, but not the same."""
    size = sum(len(text.members) for text in group)
    for at in range(len(group)):
        yield from _findings(group, at, size)


def _read(members: Sequence[Measured]) -> Text:
    first = members[0].login
    assert first.secret is not None
    text = kept_text(first.policy, first.secret.reveal())
    drawn = all(m.login.origin.kind == "drawn" for m in members)
    names = (site_names(title=m.login.title, address=m.login.address) for m in members)
    keys = keys_of(text, names, drawn=drawn)
    reading = read(text)
    return Text(tuple(members), reading.text, reading.low, letters_of(reading.low), keys)


def _findings(group: Sequence[Text], at: int, size: int) -> Iterator[Finding]:
    """In the order of the group's letters those that are nearest stand beside each other."""
    text = group[at]
    start = max(0, at - _NAMED_MOST // 2)
    others = [t for t in group[start : start + _NAMED_MOST] if t is not text]
    how, nearest = _nearest(text, others)
    logins = [m.login for other in others for m in other.members]
    more = size - len(text.members) - 1
    ending = f" and {more} other{'s' if more > 1 else ''}" if more else ""
    # One for all members: a large group is kept once.
    named = tuple(sorted(login.login_id for login in logins[:_NAMED_MOST]))
    for one in text.members:
        yield Finding(
            FindingKind.SIMILAR,
            one.login.login_id,
            f"Like {nearest.members[0].login.title}{ending}: {how}",
            others=named,
            guess_number_log10=one.guess_number_log10,
        )


def _nearest(text: Text, others: list[Text]) -> tuple[str, Text]:
    """How the text differs from the one that is most like it, and that one."""
    best, says, nearest = len(_RANK), "alike through others", others[0]
    keys = set(text.keys)
    for other in others:
        rank, how = _difference(text, keys, other)
        if rank < best:
            best, says, nearest = rank, how, other
        if best <= _NEAR:
            break
    return says, nearest


def _difference(one: Text, keys: set[str], other: Text) -> tuple[int, str]:
    """How two texts of a group differ, nearest first; those not tied directly come last."""
    if one.low == other.low:
        return -1, "the same but for capitals"
    kinds = {key.partition(" ")[0] for key in keys.intersection(other.keys)}
    if not kinds:
        return len(_RANK), ""
    kind = min(map(Alike, kinds), key=_RANK.__getitem__)
    if kind is Alike.SHAPE and _compatible(one.text) == _compatible(other.text):
        return _RANK[kind], "the same in another form of Unicode"
    if kind is Alike.LETTERS:
        return _RANK[kind], f"{_same(one.text)}, other {_beside_letters(one.low, other.low)}"
    if kind is Alike.PLAIN and plain(one.low) == plain(other.low):
        return _RANK[kind], "the same but for symbols"
    if kind is Alike.WORDS:
        both = words_of(one.text), words_of(other.text)
        shared, most = (Counter(both[0]) & Counter(both[1])).total(), max(map(len, both))
        if shared == most:
            return _RANK[kind], f"the same {shared} words"
        return _RANK[kind], f"{shared} of {most} words are the same"
    return _RANK[kind], SAYS[kind]


def _same(text: str) -> str:
    """What is the same where the letters are, and no more than can be said of it."""
    words = words_of(text)
    if not words or any(len(word) > _ONE_WORD_MOST for word in words):
        return "the same letters"
    return "the same word" if len(words) == 1 else f"the same {len(words)} words"


def _compatible(text: str) -> str:
    return unicodedata.normalize("NFKC", text)


def _beside_letters(one: str, other: str) -> str:
    digits, symbols = (
        [c for c in one if test(c)] != [c for c in other if test(c)]
        for test in (str.isdigit, lambda c: not c.isalnum())
    )
    parts = [name for name, differs in (("digits", digits), ("symbols", symbols)) if differs]
    return " and ".join(parts) or "order"
