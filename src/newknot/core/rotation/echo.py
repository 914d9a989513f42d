"""What a site repeats of a secret, in whatever form, before its words are shown or kept."""

from collections.abc import Iterator, Sequence
from html import unescape
from urllib.parse import unquote_plus

from newknot.core.secret import Secret

PART, PLAINLY = 4, 6
"""So many characters in a row of a secret are a part of it where they are half of a word, or more;
so many are one wherever they stand. A secret that is shorter counts whole.
"""
MASK = "…"
_ENDS = ".,:;!?"


def without_echo(said: str, secrets: Sequence[Secret]) -> str:
    """The words of a site; each that is a part of one of the secrets, or holds one, is left out: in
    any case, reversed, with its characters spelt as entities or percent-encoded, once or twice.
    """
    texts = [word for secret in secrets for word in _words(secret.reveal())]
    return " ".join(_told(word, texts) for word in said.split(" "))


def _words(text: str) -> Iterator[str]:
    """The words of a secret, forwards and backwards, without regard to case."""
    for word in filter(None, text.casefold().split(" ")):
        yield word
        yield word[::-1]


def _told(word: str, texts: Sequence[str]) -> str:
    plain = word.rstrip(_ENDS)
    if any(_holds(form, text) for form in _forms(plain) for text in texts):
        return MASK + word[len(plain) :]
    return MASK if any(_holds(form, text) for form in _forms(word) for text in texts) else word


def _holds(form: str, text: str) -> bool:
    """Whether they share enough in a row that one is told from the other."""
    longest = min(PART, len(text))
    if not _shares(form, text, longest):
        return False
    while _shares(form, text, longest + 1):
        longest += 1
    plainly = min(PLAINLY, max(PART, len(text)))
    return longest >= plainly or 2 * longest >= len(form.strip("()[]\"'“”"))


def _shares(form: str, text: str, n: int) -> bool:
    return any(form[i : i + n] in text for i in range(len(form) - n + 1))


def _forms(word: str) -> Iterator[str]:
    seen = {word}
    for _ in range(2):
        seen |= {unescape(form) for form in seen} | {unquote_plus(form) for form in seen}
    yield from (form.casefold() for form in seen)
