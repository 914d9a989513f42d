"""Similar: secrets made of one another by a letter, digits, symbols, capitals or the site's name.

No two secrets are compared for being in one vault: each gives some keys (its look-alike shape, its
letters alone, itself without any one character, itself with the site's name taken out), and those
that share a key are alike. The work is linear in the keys.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from operator import is_

from newknot.core.address import domain_of
from newknot.core.audit.audited import Measured
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.strength.reading import read

_STEM_LEAST, _SITE_LEAST, _REST_LEAST = 4, 4, 4
_EDITED_LEAST, _EDITED_MOST = 6, 40
_NAMED_MOST = 50
_NEAR, _DISTANT = 3, 5
"""Ranks of difference: up to the same letters it is told at once; beyond one edit it is not."""


@dataclass(frozen=True, slots=True, eq=False)
class Text:
    """One secret of the vault with the logins that have it; keys by the way it is folded."""

    members: tuple[Measured, ...]
    low: str
    shaped: str
    letters: str
    without_site: frozenset[str]
    keys: tuple[str, ...]


class Likenesses:
    """The secrets of a vault by their keys, brought up to date by what came and went."""

    def __init__(self) -> None:
        self._texts: dict[str, Text] = {}
        self._by_key: dict[str, list[Text]] = {}
        self._group_of: dict[Text, list[Text]] = {}

    def groups(self, by_secret: Sequence[Sequence[Measured]]) -> list[list[Text]]:
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
                self._by_key[key].remove(text)
                if not self._by_key[key]:
                    del self._by_key[key]
        for text in came:
            for key in text.keys:
                held = self._by_key.setdefault(key, [])
                # Those that have a key are of one group, and those of before stand first.
                of_before = self._group_of.get(held[0]) if held else None
                if of_before is not None:
                    groups[id(of_before)] = of_before
                held.append(text)
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
                for key in one.keys:
                    if key not in asked:
                        asked.add(key)
                        new = [other for other in self._by_key[key] if other not in placed]
                        placed.update(new)
                        group += new
            group.sort(key=lambda text: (text.letters, text.low, text.members[0].login.login_id))
            self._group_of.update(dict.fromkeys(group, group))


def similar(group: Sequence[Text]) -> Iterator[Finding]:
    """One finding for each login of a group whose secret is like another's, but not the same."""
    size = sum(len(text.members) for text in group)
    for at in range(len(group)):
        yield from _findings(group, at, size)


def _read(members: Sequence[Measured]) -> Text:
    secret = members[0].login.secret
    assert secret is not None
    reading = read(secret.reveal())
    drawn = all(m.login.origin.kind == "drawn" for m in members)
    letters = "" if drawn else "".join(c for c in reading.low if c.isalpha())
    sites = set() if drawn else {domain_of(m.login.address).partition(".")[0] for m in members}
    without = {
        reading.low.replace(site, "\0")
        for site in sites
        if len(site) >= _SITE_LEAST and site in reading.low
    }
    rests = frozenset(w for w in without if len(w) - w.count("\0") >= _REST_LEAST)
    keys = tuple(_keys(reading.low, reading.shaped, letters, rests))
    return Text(tuple(members), reading.low, reading.shaped, letters, rests, keys)


def _keys(low: str, shaped: str, letters: str, without_site: frozenset[str]) -> Iterator[str]:
    yield f"shape {shaped}"
    if len(letters) >= _STEM_LEAST:
        yield f"letters {letters}"
    yield from (f"site {rest}" for rest in without_site)
    if _EDITED_LEAST <= len(low) <= _EDITED_MOST:
        yield f"edit {low}"
        for at in range(len(low)):
            yield f"edit {low[:at]}{low[at + 1 :]}"


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
    best, says, nearest = _DISTANT, "alike through others", others[0]
    for other in others:
        rank, how = _difference(text, other)
        if rank < best:
            best, says, nearest = rank, how, other
        if best <= _NEAR:
            break
    return says, nearest


def _difference(one: Text, other: Text) -> tuple[int, str]:
    """How two texts of a group differ, nearest first; those not tied directly come last."""
    if one.low == other.low:
        return 0, "the same but for capitals"
    if one.shaped == other.shaped:
        return 1, "the same but for look-alike characters"
    if one.without_site & other.without_site:
        return 2, "the same with each site's name built in"
    if len(one.letters) >= _STEM_LEAST and one.letters == other.letters:
        digits, symbols = (
            [c for c in one.low if test(c)] != [c for c in other.low if test(c)]
            for test in (str.isdigit, lambda c: not c.isalnum())
        )
        parts = [name for name, differs in (("digits", digits), ("symbols", symbols)) if differs]
        return 3, f"the same word, other {' and '.join(parts) or 'order'}"
    if _one_edit(one.low, other.low):
        return 4, "one character differs"
    return _DISTANT, ""


def _one_edit(one: str, other: str) -> bool:
    if abs(len(one) - len(other)) > 1:
        return False
    ones = {one, *(one[:k] + one[k + 1 :] for k in range(len(one)))}
    return any(other[:k] + other[k + 1 :] in ones for k in range(len(other))) or other in ones
