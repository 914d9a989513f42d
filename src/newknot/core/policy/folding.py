"""Case folding, one character to one character, so that places in a text stay what they are."""


def folded(text: str) -> str:
    """Each character in its folded form where that is one character, else as it is."""
    return "".join(_fold(c) for c in text)


def _fold(character: str) -> str:
    for form in (character.casefold(), character.lower()):
        if len(form) == 1:
            return form
    return character


def step(a: str, b: str) -> int:
    """+1 or -1 where b follows a within a to z (case-folded) or within 0 to 9, else 0."""
    a, b = folded(a), folded(b)
    letters = "a" <= a <= "z" and "a" <= b <= "z"
    digits = "0" <= a <= "9" and "0" <= b <= "9"
    distance = ord(b) - ord(a) if letters or digits else 0
    return distance if distance in (1, -1) else 0
