"""The usual character classes, and the characters that are taken for one another."""

LOWER = "abcdefghijklmnopqrstuvwxyz"
UPPER = "ABCDEFGHIJKLMNOPQRSTUVWXYZ"
DIGITS = "0123456789"
SYMBOLS = "!\"#$%&'()*+,-./:;<=>?@[\\]^_`{|}~"
"""The 32 ASCII characters that are neither letters, digits nor blank."""

STANDARD_CLASSES = {"lower": LOWER, "upper": UPPER, "digit": DIGITS, "symbol": SYMBOLS}
LOOK_ALIKES = "0OoIl1|5S2Z8B`'"
_MEMBERS = {
    "lower": "lower-case letters",
    "upper": "upper-case letters",
    "digit": "digits",
    "symbol": "symbols",
}


def members(name: str) -> str:
    """What a class holds, as it is said: `digits`, or by the site's own name for it."""
    return _MEMBERS.get(name, f"characters of {name}")
