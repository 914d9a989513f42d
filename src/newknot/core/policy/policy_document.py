"""The JSON form of a policy, read with every field's type and bounds held."""

from collections.abc import Mapping
from dataclasses import fields
from typing import Any

from newknot.core.errors import FieldInvalid
from newknot.core.policy.policy_rules import LENGTH_LIMIT, CharacterClass, PolicyRules

SAID_LENGTH_LIMIT = 10_000
CLASSES_LIMIT = 16
CLASS_CHARACTERS_LIMIT = 2_000
FORBIDDEN_LIMIT = 50
FORBIDDEN_TEXT_LIMIT = 200


class PolicyInvalid(FieldInvalid):
    """A policy whose form is wrong. data: field (dotted path), reason."""


def _integer(value: object, field: str, least: int, most: int) -> int:
    if isinstance(value, bool) or not isinstance(value, int):
        raise PolicyInvalid(field, "is not a whole number")
    if not least <= value <= most:
        raise PolicyInvalid(field, f"is not between {least} and {most}")
    return value


def _maybe_integer(
    document: Mapping[str, Any], field: str, least: int, most: int = 10_000
) -> int | None:
    value = document.get(field)
    return None if value is None else _integer(value, field, least, most)


def _text(value: object, field: str, limit: int) -> str:
    if not isinstance(value, str):
        raise PolicyInvalid(field, "is not text")
    if len(value) > limit:
        raise PolicyInvalid(field, f"is longer than {limit:,} characters")
    if any(0xD800 <= ord(c) <= 0xDFFF for c in value):
        raise PolicyInvalid(field, "holds half of a character pair")
    return value


def _flag(document: Mapping[str, Any], field: str) -> bool:
    value = document.get(field, False)
    if not isinstance(value, bool):
        raise PolicyInvalid(field, "is neither true nor false")
    return value


def _class(entry: object, at: str) -> CharacterClass:
    if not isinstance(entry, Mapping):
        raise PolicyInvalid(at, "is not an object")
    unknown = set(entry) - {"name", "characters", "minimum", "maximum"}
    if unknown:
        raise PolicyInvalid(f"{at}.{sorted(map(str, unknown))[0]}", "is not a known key")
    characters = _text(entry.get("characters"), f"{at}.characters", CLASS_CHARACTERS_LIMIT)
    if not characters:
        raise PolicyInvalid(f"{at}.characters", "is empty")
    if any(ord(c) < 32 for c in characters):
        raise PolicyInvalid(f"{at}.characters", "holds a control character")
    if len(set(characters)) != len(characters):
        raise PolicyInvalid(f"{at}.characters", "names a character twice")
    minimum = _integer(entry.get("minimum", 0), f"{at}.minimum", 0, LENGTH_LIMIT)
    greatest = entry.get("maximum")
    maximum = None if greatest is None else _integer(greatest, f"{at}.maximum", 0, LENGTH_LIMIT)
    name = _text(entry.get("name", ""), f"{at}.name", 40)
    return CharacterClass(name, characters, minimum, maximum)


def read_rules_of(document: Mapping[str, Any]) -> dict[str, Any]:
    """The fields of the rules of a JSON document. Raises `PolicyInvalid` naming the field."""
    if not isinstance(document, Mapping):
        raise PolicyInvalid("policy", "is not an object")
    unknown = set(document) - {f.name for f in fields(PolicyRules)}
    if unknown:
        raise PolicyInvalid(sorted(map(str, unknown))[0], "is not a known key")
    min_length = _integer(document.get("min_length"), "min_length", 1, SAID_LENGTH_LIMIT)
    max_length = _integer(document.get("max_length"), "max_length", 1, SAID_LENGTH_LIMIT)
    entries = document.get("classes", [])
    if not isinstance(entries, (list, tuple)) or len(entries) > CLASSES_LIMIT:
        raise PolicyInvalid("classes", f"is not a list of at most {CLASSES_LIMIT} classes")
    classes = tuple(_class(entry, f"classes.{i}") for i, entry in enumerate(entries))
    taken: dict[str, int] = {}
    for i, one in enumerate(classes):
        for character in one.characters:
            if character in taken:
                raise PolicyInvalid(
                    f"classes.{i}.characters", f"overlaps with class {taken[character]}"
                )
            taken[character] = i
    forbidden = document.get("forbidden") or []
    if not isinstance(forbidden, (list, tuple)) or len(forbidden) > FORBIDDEN_LIMIT:
        raise PolicyInvalid("forbidden", f"is not a list of at most {FORBIDDEN_LIMIT} texts")
    words = tuple(
        _text(word, f"forbidden.{i}", FORBIDDEN_TEXT_LIMIT) for i, word in enumerate(forbidden)
    )
    if "" in words:
        raise PolicyInvalid(f"forbidden.{words.index('')}", "is empty")
    ends = {}
    for field in ("first_from", "last_from"):
        value = document.get(field)
        ends[field] = None if value is None else _text(value, field, CLASS_CHARACTERS_LIMIT)
    return {
        "min_length": min_length,
        "max_length": max_length,
        "classes": classes,
        "min_classes": _maybe_integer(document, "min_classes", 0, CLASSES_LIMIT) or 0,
        "max_identical_run": _maybe_integer(document, "max_identical_run", 1),
        "max_sequence_run": _maybe_integer(document, "max_sequence_run", 1),
        "first_from": ends["first_from"],
        "last_from": ends["last_from"],
        "distinct": _flag(document, "distinct"),
        "max_uses": _maybe_integer(document, "max_uses", 1),
        "forbidden": words,
        "excluded": _text(document.get("excluded") or "", "excluded", CLASS_CHARACTERS_LIMIT),
        "folds_case": _flag(document, "folds_case"),
        "keeps_first": _maybe_integer(document, "keeps_first", 1),
        "history_depth": _maybe_integer(document, "history_depth", 0),
        "max_age_days": _maybe_integer(document, "max_age_days", 1),
    }
