"""A secret text that does not print itself."""

import hmac


class Secret:
    """Wraps a password, passphrase, PIN or answer; only `reveal()` gives the text."""

    __slots__ = ("_text",)

    def __init__(self, text: str) -> None:
        self._text = text

    def reveal(self) -> str:
        """The text itself."""
        return self._text

    def __len__(self) -> int:
        return len(self._text)

    def __repr__(self) -> str:
        return "Secret(…)"

    __str__ = __repr__

    def __eq__(self, other: object) -> bool:
        if not isinstance(other, Secret):
            return NotImplemented
        mine, theirs = (s._text.encode("utf-8", "surrogatepass") for s in (self, other))
        return hmac.compare_digest(mine, theirs)

    def __hash__(self) -> int:
        return hash(self._text)
