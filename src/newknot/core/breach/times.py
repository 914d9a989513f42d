"""How often a secret was found, said no more exactly than the corpus knows."""

LEVELS = 16


def level_of(count: int) -> int:
    """floor(log2(count)), held to 4 bits; count at least 1."""
    return min(LEVELS - 1, max(1, count).bit_length() - 1)


def times_text(at_least: int) -> str:
    """A phrase for a level's lower bound (a power of two): `1,000 to 2,000 times`."""
    if at_least <= 1:
        return "once"
    if at_least >= 1 << (LEVELS - 1):
        return "30,000 times or more"
    return f"{_rounded(at_least):,} to {_rounded(2 * at_least):,} times"


def _rounded(n: int) -> int:
    """To two significant figures: 1,024 becomes 1,000."""
    return round(n, 2 - len(str(n)))
