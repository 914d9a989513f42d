"""The rules by which a site takes or refuses a password, as data."""

from dataclasses import dataclass

LENGTH_LIMIT = 256
"""What is drawn and counted at most; a policy may say more."""


@dataclass(frozen=True, slots=True)
class CharacterClass:
    """A named set of characters with a least and, where given, a greatest number of uses."""

    name: str
    characters: str
    minimum: int = 0
    maximum: int | None = None


@dataclass(frozen=True, slots=True)
class PolicyRules:
    """Field names are those of the JSON form; lengths in characters.

    Classes are disjoint; a character in no class may not occur. `forbidden` is matched
    case-insensitively. `max_sequence_run` bounds runs up or down by one within a to z
    (case-folded) or within the digits. `distinct` is `max_uses` 1.
    """

    min_length: int
    max_length: int
    classes: tuple[CharacterClass, ...] = ()
    min_classes: int = 0
    max_identical_run: int | None = None
    max_sequence_run: int | None = None
    first_from: str | None = None
    last_from: str | None = None
    distinct: bool = False
    max_uses: int | None = None
    forbidden: tuple[str, ...] = ()
    excluded: str = ""
    folds_case: bool = False
    keeps_first: int | None = None
    history_depth: int | None = None
    max_age_days: int | None = None

    def usable_classes(self) -> tuple[CharacterClass, ...]:
        """The classes without the excluded characters."""
        gone = set(self.excluded)
        return tuple(
            CharacterClass(
                c.name, "".join(x for x in c.characters if x not in gone), c.minimum, c.maximum
            )
            for c in self.classes
        )
