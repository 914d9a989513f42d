"""Single symbols: the usual ones at the end or between, and one used again."""

import re
from collections.abc import Iterator
from functools import cache
from math import log10

from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

USUAL = {"!": 0.26, ".": 0.1, "-": 0.1, "_": 0.08, "@": 0.07, "?": 0.06, "#": 0.06, "*": 0.05}
USUAL |= {"$": 0.04, " ": 0.04, "&": 0.02, "+": 0.02, ",": 0.02, "/": 0.01, "%": 0.01}
"""Shares of symbols in hand-made secrets."""
_OTHER_ASCII = 33 - len(USUAL)
_OTHER_SHARE, _POPULAR_SHARE, _BEYOND_SHARE, _BEYOND = 0.05, 0.008, 0.004, 3_000
POPULAR = (
    "😀😁😂🤣😃😄😅😆😉😊😋😎😍😘🥰🙂🤗🤔😐😏😴😛😜🙃😢😭😡😱🤬😈👿💀👻👽🤖💩😺👍👎👌✌👏🙏💪👀"
    "❤♥💔💕💖💙💚💛💜🖤💯💥🔥⭐🌟✨⚡☀🌈🌙❄☔🌊🌹🌸🌻🌴🌍🐶🐱🐭🐰🦊🐻🐼🐵🦁🐷🐸🐴🦄🐝🦋🐢🐍🐙🐟🐬🦈"
    "🍎🍌🍓🍕🍔🍟🍺🍻🍷☕🎂🍀🎃🎄🎁🎉🎈🏆⚽🏀🎸🎵🎮🚗🚀✈🏠💎👑🔑🔒💰💣☠☮☯★☆♪♫✓✔✗€£¥°§"
)
"""Emoji and signs that people take."""
PAIRS = {"(": ")", "[": "]", "{": "}", "<": ">", ">": "<", "«": "»", "„": "“", "“": "”"}
_POPULAR_FIRST = 20
AGAIN_LOG10 = 0.2
_LETTER_LOG10, _LETTER_FEE = log10(26), 1.6
_IN_SENTENCES = re.compile(r"(?<=\w)(?:, |\. |; |: |! |\? | - | & | \+ | = |=> | / )(?=\w)")
_OF_SENTENCES, _SENTENCE_LOG10 = log10(12), 0.6
_OF_THE_USUAL, _OF_ASCII, _OF_ALL = log10(len(USUAL)), log10(33), log10(_BEYOND)


@cache
def _usual_log10() -> dict[str, float]:
    return {c: -log10(share) for c, share in USUAL.items()}


def symbol_log10(symbol: str) -> float:
    """-log10 of the probability of a symbol."""
    usual = _usual_log10().get(symbol)
    if usual is not None:
        return usual
    if symbol.isascii():
        return log10(_OTHER_ASCII / _OTHER_SHARE)
    if symbol in POPULAR:
        return log10(len(POPULAR) / _POPULAR_SHARE)
    return log10(_BEYOND / _BEYOND_SHARE)


def _among(symbol: str) -> float:
    """log10 of how many symbols a guesser tries who knows of what kind it is."""
    if symbol in USUAL:
        return _OF_THE_USUAL
    if symbol.isascii():
        return _OF_ASCII
    return log10(max(_POPULAR_FIRST, POPULAR.index(symbol))) if symbol in POPULAR else _OF_ALL


def symbols(reading: Reading) -> Iterator[Found]:
    """Each character that is neither letter nor digit, and such as stand together in a sentence."""
    seen: set[str] = set()
    for hit in _IN_SENTENCES.finditer(reading.low):
        known = hit.group() in seen
        which = AGAIN_LOG10 if known else _OF_SENTENCES
        fee = 0.0 if known else _SENTENCE_LOG10
        seen.add(hit.group())
        yield Found(*hit.span(), Part.SYMBOL, which, fee, SegmentKind.SYMBOL)
    for at, c in enumerate(reading.low):
        if not c.isalnum():
            cost = AGAIN_LOG10 if c in seen else symbol_log10(c)
            which = min(cost, _among(c))
            # Whoever takes one emoji takes others.
            if c in POPULAR and not seen.isdisjoint(POPULAR):
                cost = which
            # What was opened is closed again.
            seen |= {c, PAIRS.get(c, c)}
            yield Found(at, at + 1, Part.SYMBOL, which, cost - which, SegmentKind.SYMBOL)


def single_letters(reading: Reading) -> Iterator[Found]:
    """A letter that stands alone: beside signs, digits or letters of the other case."""
    text = reading.text
    for at, c in enumerate(reading.low):
        if not ("a" <= c <= "z"):
            continue
        before, behind = text[at - 1 : at] if at else "", text[at + 1 : at + 2]
        if not (_continues(before, text[at]) or _continues(text[at], behind)):
            kind = SegmentKind.RANDOM
            yield Found(at, at + 1, Part.SYMBOL, _LETTER_LOG10, _LETTER_FEE, kind)


def _continues(letter: str, then: str) -> bool:
    """Whether two letters stand together: of one case."""
    return letter.isalpha() and then.isalpha() and letter.isupper() == then.isupper()
