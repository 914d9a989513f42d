"""The sentence that the interface writes for a policy, read back to the same policy.

`8 to 20 characters: lower case, digits (at least 2); at most 2 alike in a row.`
"""

import re
from collections.abc import Callable
from typing import Any

from newknot.core.policy.character_classes import STANDARD_CLASSES

_LABELS = {"lower": "lower case", "upper": "upper case", "digit": "digits", "symbol": "symbols"}
_WHOLE = re.compile(r"([0-9]{1,3})(?: to ([0-9]{1,4}))? characters: (.*)\.", re.DOTALL)
_CLASS = re.compile(
    rf"({'|'.join(_LABELS.values())})(?: (but )?((?:\S|blank)(?: (?:\S|blank))*?))?"
    r"(?: \(at least ([0-9]{1,3})\))?(?: \(at most ([0-9]{1,3})\))?"
)
_NUMBERED = {
    r"at least ([0-9]+) of these kinds": "min_classes",
    r"at most ([0-9]+) alike in a row": "max_identical_run",
    r"no sequence beyond ([0-9]+)": "max_sequence_run",
    r"no character more than ([0-9]+) times": "max_uses",
    r"only the first ([0-9]+) count": "keeps_first",
    r"remembers the last ([0-9]+)": "history_depth",
    r"changed every ([0-9]+) days": "max_age_days",
}
_FLAGS = {"no character twice": "distinct", "upper and lower count alike": "folds_case"}


def read_own_sentence(text: str) -> dict[str, Any] | None:
    """The JSON form of the policy, or None where it is no such sentence, or one that does not say
    all (it only counts forbidden texts, and names classes of other names alone).
    """
    whole = _WHOLE.fullmatch(text.strip())
    if whole is None:
        return None
    document: dict[str, Any] = {
        "min_length": int(whole[1]),
        "max_length": int(whole[2] or whole[1]),
    }
    kinds, *parts = re.split(r"; (?=[a-z]{2})", whole[3])
    classes = _classes(kinds)
    if classes is None:
        return None
    document["classes"] = classes
    return document if all(_take(part, document) for part in parts) else None


def _classes(text: str) -> list[dict[str, Any]] | None:
    found: list[dict[str, Any]] = []
    for part in re.split(rf", (?=(?:{'|'.join(_LABELS.values())})\b)", text):
        at = _CLASS.fullmatch(part)
        if at is None:
            return None
        name = next(name for name, label in _LABELS.items() if label == at[1])
        characters, listed = STANDARD_CLASSES[name], _characters(at[3] or "")
        if at[2]:
            characters = "".join(c for c in characters if c not in listed)
        elif listed:
            characters = listed
        one: dict[str, Any] = {"name": name, "characters": characters}
        one["minimum"] = int(at[4] or 0)
        if at[5]:
            one["maximum"] = int(at[5])
        found.append(one)
    return found


def _take(part: str, document: dict[str, Any]) -> bool:
    if part in _FLAGS:
        document[_FLAGS[part]] = True
        return True
    for pattern, name in _NUMBERED.items():
        at = re.fullmatch(pattern, part)
        if at:
            document[name] = int(at[1])
            return True
    ways: tuple[tuple[str, str, Callable[[str], str]], ...] = (
        (r"without ((?:\S|blank)(?: (?:\S|blank))*)", "excluded", _characters),
        (r"begins with one of (.+)", "first_from", _one_of),
        (r"ends with one of (.+)", "last_from", _one_of),
    )
    for pattern, name, read in ways:
        at = re.fullmatch(pattern, part)
        if at:
            document[name] = read(at[1])
            return bool(document[name])
    return False


def _characters(text: str) -> str:
    parts = text.split()
    return "".join(" " if part == "blank" else part for part in parts)


def _one_of(text: str) -> str:
    """Kinds joined by "or", else characters one by one; empty where it is neither."""
    names = {label: name for name, label in _LABELS.items()}
    kinds = text.split(" or ")
    if all(kind in names for kind in kinds):
        return "".join(STANDARD_CLASSES[names[kind]] for kind in kinds)
    parts = text.split()
    return _characters(text) if all(len(p) == 1 or p == "blank" for p in parts) else ""
