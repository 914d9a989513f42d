"""What a site's refusal teaches: its policy with one rule more."""

from dataclasses import dataclass, replace
from enum import StrEnum

from newknot.core.errors import FieldInvalid
from newknot.core.policy.character_classes import SYMBOLS
from newknot.core.policy.rules_text import read_rules
from newknot.core.policy.site_policy import SitePolicy

_OVERRIDDEN = (
    *("min_length", "max_length", "min_classes", "max_identical_run", "max_sequence_run"),
    "history_depth",
)


class LessonKind(StrEnum):
    """Why a site refused a secret, in the words that sites have for it."""

    TOO_LONG = "too_long"
    TOO_SHORT = "too_short"
    THESE_CHARACTERS = "these_characters"
    NO_SYMBOLS = "no_symbols"
    TOO_LIKE_THE_LAST = "too_like_the_last"
    ITS_WORDS = "its_words"


@dataclass(frozen=True, slots=True)
class Lesson:
    """A kind, with a length for the first two, and a text: the characters, or the site's words."""

    kind: LessonKind
    length: int | None = None
    text: str = ""


def taught(policy: SitePolicy, lesson: Lesson) -> SitePolicy:
    """The policy as it is after the lesson. Raises `FieldInvalid` where the lesson says nothing."""
    match lesson.kind:
        case LessonKind.TOO_LONG:
            length = _length(lesson)
            return replace(policy, max_length=length, min_length=min(policy.min_length, length))
        case LessonKind.TOO_SHORT:
            length = _length(lesson)
            return replace(policy, min_length=length, max_length=max(policy.max_length, length))
        case LessonKind.THESE_CHARACTERS:
            if not lesson.text:
                raise FieldInvalid("text", "names no character")
            return _without(policy, lesson.text)
        case LessonKind.NO_SYMBOLS:
            other = {c for one in policy.classes for c in one.characters if not c.isalnum()}
            return _without(policy, SYMBOLS + "".join(sorted(other)))
        case LessonKind.TOO_LIKE_THE_LAST:
            return replace(policy, history_depth=(policy.history_depth or 0) + 1)
        case LessonKind.ITS_WORDS:
            return _by_words(policy, lesson.text)


def _length(lesson: Lesson) -> int:
    if lesson.length is None or lesson.length < 1:
        raise FieldInvalid("length", "is missing")
    return lesson.length


def _without(policy: SitePolicy, characters: str) -> SitePolicy:
    """Characters leave their classes; a class that is empty then goes, with what it demanded."""
    gone = set(characters)
    classes = tuple(
        replace(one, characters="".join(c for c in one.characters if c not in gone))
        for one in policy.classes
    )
    left = tuple(one for one in classes if one.characters)
    return SitePolicy.from_dict(
        replace(policy, classes=left, min_classes=min(policy.min_classes, len(left))).to_dict()
    )


def _by_words(policy: SitePolicy, text: str) -> SitePolicy:
    usual = read_rules("").document
    document = read_rules(text).document
    said = {key: value for key, value in document.items() if value != usual.get(key)}
    if not said:
        raise FieldInvalid("text", "holds no rule that is understood for sure")
    known = policy.to_dict()
    known |= {key: value for key, value in said.items() if key in _OVERRIDDEN or key == "classes"}
    known["min_classes"] = min(known["min_classes"], len(known["classes"]))
    known["max_length"] = max(known["max_length"], known["min_length"])
    known["min_length"] = min(known["min_length"], known["max_length"])
    return SitePolicy.from_dict(known)
