"""Policies from what sites say of themselves: rule attribute text, input attributes, a plain list.

The attribute text is that of the `passwordrules` attribute proposed for HTML: properties
`required`, `allowed`, `max-consecutive`, `minlength`, `maxlength`, parted by semicolons, with the
classes `lower`, `upper`, `digit`, `special`, `ascii-printable` and `[characters]`. Only what is
sure is taken; the rest is given back as it stood.
"""

import html
import re
from dataclasses import dataclass
from typing import Any

from newknot.core.policy.character_classes import DIGITS, LOWER, STANDARD_CLASSES, SYMBOLS, UPPER
from newknot.core.policy.own_sentence import read_own_sentence
from newknot.core.policy.rules_pattern import PatternRead, read_pattern
from newknot.core.policy.rules_prose import read_prose
from newknot.core.policy.site_policy import LENGTH_LIMIT, SitePolicy

TEXT_LIMIT = 10_000
_NAMED = {"lower": LOWER, "upper": UPPER, "digit": DIGITS, "special": SYMBOLS}
_PRINTABLE = LOWER + UPPER + DIGITS + SYMBOLS
_NUMBER = re.compile(r"[0-9]+")
_TELLS = re.compile(
    r"\b(?:must|should|characters?|letters?|digits?|numbers?|symbols?|least|most|not|cannot)\b",
    re.I,
)
"""What a form says of its rules, and not of its fields."""


@dataclass(frozen=True, slots=True)
class RulesRead:
    """The JSON form of what was sure, and the parts of the text that were not."""

    document: dict[str, Any]
    unsure: tuple[str, ...]


def read_rules(text: str) -> RulesRead:
    """What can be taken from a pasted text, whichever of the three forms it has."""
    text = text[:TEXT_LIMIT].strip()
    own = read_own_sentence(text)
    if own is not None:
        return RulesRead(own, ())
    if re.search(r"<[a-z]", text, re.IGNORECASE):
        return _read_form(text)
    if re.search(r"\b(required|allowed|minlength|maxlength|max-consecutive)\s*:", text, re.I):
        return _read_properties(text)
    return RulesRead(*read_prose(text))


def write_rules(policy: SitePolicy) -> str:
    """The attribute text of a policy; rules that it has no words for are left out."""
    parts = [f"minlength: {policy.min_length}", f"maxlength: {policy.max_length}"]
    allowed: list[str] = []
    for one in policy.usable_classes():
        if not one.characters:
            continue
        known = [n for n, c in _NAMED.items() if set(c) == set(one.characters) and n != "special"]
        name = known[0] if known else f"[{_bracketed(one.characters)}]"
        if one.minimum:
            parts.append(f"required: {name}")
        else:
            allowed.append(name)
    if allowed:
        parts.append("allowed: " + ", ".join(allowed))
    if policy.max_identical_run is not None:
        parts.append(f"max-consecutive: {policy.max_identical_run}")
    return "; ".join(parts) + ";"


def _bracketed(characters: str) -> str:
    """Within brackets a hyphen stands first and a closing bracket last."""
    plain = "".join(c for c in characters if c not in "-]")
    return ("-" if "-" in characters else "") + plain + ("]" if "]" in characters else "")


def _read_properties(text: str) -> RulesRead:
    required: list[tuple[str, str]] = []
    allowed: list[str] = []
    document: dict[str, Any] = {"min_length": 1, "max_length": 64}
    unsure: list[str] = []
    for part in _split(text, ";"):
        name, _, value = (piece.strip() for piece in part.partition(":"))
        name = name.lower()
        if name in ("minlength", "maxlength", "max-consecutive") and _NUMBER.fullmatch(value):
            key = {"minlength": "min_length", "maxlength": "max_length"}.get(name)
            document[key or "max_identical_run"] = _bounded(value)
        elif name in ("required", "allowed"):
            names = _split(value, ",")
            found = [_characters(one) for one in names]
            if not names or None in found:
                unsure.append(part)
                continue
            characters = "".join(dict.fromkeys("".join(f for f in found if f)))
            if name == "required":
                required.append((" or ".join(n.lower() for n in names), characters))
            else:
                allowed.append(characters)
        else:
            unsure.append(part)
    if not required and not allowed:
        allowed.append(_PRINTABLE)
    document["classes"] = _disjoint(required, "".join(allowed), unsure)
    return RulesRead(document, tuple(unsure))


def _split(text: str, mark: str) -> list[str]:
    """Parts between marks that stand outside brackets."""
    parts, inside, start = [], False, 0
    for i, c in enumerate(text):
        if c == "[" and not inside:
            inside = True
        elif c == "]" and inside and text[i + 1 : i + 2] in ("", ",", ";", " "):
            inside = False
        elif c == mark and not inside:
            parts.append(text[start:i])
            start = i + 1
    parts.append(text[start:])
    return [part.strip() for part in parts if part.strip()]


def _characters(name: str) -> str | None:
    if name.startswith("[") and name.endswith("]") and len(name) > 2:
        return "".join(c for c in dict.fromkeys(name[1:-1]) if c in _PRINTABLE) or None
    return {**_NAMED, "ascii-printable": _PRINTABLE}.get(name.lower())


def _disjoint(
    required: list[tuple[str, str]], allowed: str, unsure: list[str]
) -> list[dict[str, Any]]:
    """Classes without overlaps: what is demanded first, then the rest by its usual classes."""
    classes: list[dict[str, Any]] = []
    taken: set[str] = set()
    for name, characters in required:
        if taken & set(characters):
            unsure.append(f"required: {name} (overlaps with another demand)")
            continue
        taken |= set(characters)
        classes.append(
            {"name": _class_name(characters, name), "characters": characters, "minimum": 1}
        )
    for name, usual in STANDARD_CLASSES.items():
        rest = "".join(c for c in usual if c in allowed and c not in taken)
        if rest:
            classes.append({"name": name, "characters": rest, "minimum": 0})
    return classes


def _class_name(characters: str, otherwise: str) -> str:
    for name, usual in STANDARD_CLASSES.items():
        if set(characters) <= set(usual):
            return name
    return otherwise[:40]


def _read_form(text: str) -> RulesRead:
    """A form's markup: attributes, a pattern of the usual make, and what the form tells people."""
    found = {
        name.lower(): html.unescape(double or single)
        for name, double, single in re.findall(r"([\w-]+)\s*=\s*(?:\"([^\"]*)\"|'([^']*)')", text)
    }
    unsure: list[str] = []
    if "passwordrules" in found:
        document, given_back = _parts(_read_properties(found["passwordrules"]))
    else:
        document, given_back = _parts(RulesRead(*read_prose(_said(text, found))))
        given_back = [part for part in given_back if _TELLS.search(part)]
    unsure += given_back
    if "pattern" in found:
        pattern = read_pattern(found["pattern"])
        if pattern is None:
            # What the form tells people in words is surer than a pattern that is not understood.
            unsure += [found["pattern"]] if document == _NOTHING_SAID else []
        else:
            document = _narrowed(document, pattern, unsure)
    for name, key in (("minlength", "min_length"), ("maxlength", "max_length")):
        if _NUMBER.fullmatch(found.get(name, "")):
            document[key] = _bounded(found[name])
    return RulesRead(document, tuple(unsure))


def _parts(read: RulesRead) -> tuple[dict[str, Any], list[str]]:
    return dict(read.document), list(read.unsure)


def _said(text: str, attributes: dict[str, str]) -> str:
    """What people read of a form: its title, and the text between its tags, a line each."""
    between = html.unescape(re.sub(r"<[^<>]{0,5000}>", "\n", text))
    hints = [attributes[name] for name in ("title", "aria-description") if name in attributes]
    return "\n".join([*hints, between])


def _narrowed(document: dict[str, Any], pattern: PatternRead, unsure: list[str]) -> dict[str, Any]:
    """The policy with what a pattern demands beside what was said in words."""
    if pattern.least is not None:
        document["min_length"] = max(document["min_length"], _bounded(str(pattern.least)))
    if pattern.most is not None:
        document["max_length"] = min(document["max_length"], _bounded(str(pattern.most)))
    document["max_length"] = max(document["max_length"], document["min_length"])
    alphabet = {c for one in document["classes"] for c in one["characters"]}
    if pattern.alphabet is not None:
        alphabet &= set(pattern.alphabet)
    least = {one["characters"]: one["minimum"] for one in document["classes"] if one["minimum"]}
    for characters, count in pattern.demands:
        least[characters] = max(count, least.get(characters, 0))
    demands = [
        (_class_name(kept, "letter" if kept.isalpha() else "these"), kept, count)
        for characters, count in sorted(least.items(), key=lambda one: len(one[0]))
        if (kept := "".join(c for c in characters if c in alphabet))
    ]
    classes = _disjoint([(name, c) for name, c, _ in demands], "".join(sorted(alphabet)), unsure)
    counts = {c: n for _, c, n in demands}
    for one in classes:
        one["minimum"] = counts.get(one["characters"], 0)
    document["classes"] = classes
    return document


def _bounded(number: str) -> int:
    """A number of ASCII digits, however long, within what a policy may have."""
    return max(1, min(LENGTH_LIMIT, int(number[:9])))


_NOTHING_SAID = read_prose("")[0]
