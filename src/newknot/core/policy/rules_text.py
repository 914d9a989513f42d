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
from newknot.core.policy.site_policy import LENGTH_LIMIT, SitePolicy

TEXT_LIMIT = 10_000
_NAMED = {"lower": LOWER, "upper": UPPER, "digit": DIGITS, "special": SYMBOLS}
_PRINTABLE = LOWER + UPPER + DIGITS + SYMBOLS
_NUMBERS = {
    w: i
    for i, w in enumerate(
        ["zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"]
    )
} | {"twelve": 12}
_PLAIN_CLASSES = {
    "lower": r"lower[- ]?case(?: letters?| characters?)?",
    "upper": r"(?:upper[- ]?case|capital)(?: letters?| characters?)?",
    "letter": r"letters?",
    "digit": r"(?:digits?|numbers?|numerals?)",
    "symbol": r"(?:symbols?|special characters?|punctuation(?: marks?)?)",
}
_SUBJECT = re.compile(
    r"^(?:(?:your|the|a|this)\s+)?(?:new\s+)?(?:password|passphrase|pin|it)s?\s+"
    r"(?:(?:must|should|may|can|has to|needs to)\s+)?(?P<not>not\s+)?(?:only\s+)?"
    r"(?:have|has|be|contain|hold|use|include|consist of)s?\s+(?:only\s+)?"
)
"""How a site begins to speak of its rules; what it says of them comes after."""
_COUNT = r"(?P<count>[0-9]{1,3}|an?|one|two|three|four|five|six|seven|eight)"
_NUMBER = re.compile(r"[0-9]+")
_REMEMBERED = re.compile(
    r"\b(?:last|previous|past|former|earlier|most recent)\s+"
    r"(?:(?P<count>[0-9]{1,3}|one|two|three|four|five|six|seven|eight|nine|ten|twelve)\s+)?"
    r"(?:used\s+|old\s+)?(?:passwords?|passphrases?|pins?|ones?|secrets?)\b"
)
_REMEMBERS = re.compile(
    r"\bremembers?\s+(?:the\s+|your\s+)?(?:last|previous)\s+(?P<count>[0-9]{1,3})\b"
)
"""What a site says of the secrets before that it does not take again."""


@dataclass(frozen=True, slots=True)
class RulesRead:
    """The JSON form of what was sure, and the parts of the text that were not."""

    document: dict[str, Any]
    unsure: tuple[str, ...]


def read_rules(text: str) -> RulesRead:
    """What can be taken from a pasted text, whichever of the three forms it has."""
    text = text[:TEXT_LIMIT].strip()
    if "<" in text:
        return _read_attributes(text)
    if re.search(r"\b(required|allowed|minlength|maxlength|max-consecutive)\s*:", text, re.I):
        return _read_properties(text)
    return _read_plain(text)


def write_rules(policy: SitePolicy) -> str:
    """The attribute text of a policy; rules that it has no words for are left out."""
    parts = [f"minlength: {policy.min_length}", f"maxlength: {policy.max_length}"]
    allowed: list[str] = []
    for one in policy.usable_classes():
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


def _read_attributes(text: str) -> RulesRead:
    found = {
        name.lower(): html.unescape(double or single)
        for name, double, single in re.findall(r"([\w-]+)\s*=\s*(?:\"([^\"]*)\"|'([^']*)')", text)
    }
    if "passwordrules" in found:
        read = _read_properties(found["passwordrules"])
    elif "pattern" in found:
        read = _read_pattern(found["pattern"])
        if read.unsure and "title" in found:
            # What the form tells people in words is surer than a pattern that is not understood.
            read = _read_plain(found["title"])
    elif "title" in found:
        read = _read_plain(found["title"])
    else:
        read = RulesRead({"min_length": 1, "max_length": 64, "classes": _usual()}, ())
    document = dict(read.document)
    for name, key in (("minlength", "min_length"), ("maxlength", "max_length")):
        if _NUMBER.fullmatch(found.get(name, "")):
            document[key] = _bounded(found[name])
    return RulesRead(document, read.unsure)


def _read_pattern(pattern: str) -> RulesRead:
    """One bracketed set with a range, as `[A-Za-z0-9]{8,16}`; anything else is not sure."""
    whole = re.fullmatch(r"\^?\[([^\]^\[]+)\]\{(\d+),(\d+)\}\$?", pattern, re.ASCII)
    if whole is None:
        return RulesRead({"min_length": 1, "max_length": 64, "classes": _usual()}, (pattern,))
    inside = whole[1].replace("\\d", "0-9").replace("\\w", "A-Za-z0-9_")
    # Of a span only what a policy may have: it may reach over all of Unicode.
    characters: set[str] = set()
    for low, high, one in re.findall(r"(\w)-(\w)|\\?(.)", inside):
        characters.update(c for c in _PRINTABLE if (low or one) <= c <= (high or one))
    document = {
        "min_length": _bounded(whole[2]),
        "max_length": _bounded(whole[3]),
        "classes": _disjoint([], "".join(sorted(characters)), []),
    }
    return RulesRead(document, ())


def _bounded(number: str) -> int:
    """A number of ASCII digits, however long, within what a policy may have."""
    return max(1, min(LENGTH_LIMIT, int(number[:9])))


def _usual() -> list[dict[str, Any]]:
    return [{"name": n, "characters": c, "minimum": 0} for n, c in STANDARD_CLASSES.items()]


def _read_plain(text: str) -> RulesRead:
    document: dict[str, Any] = {"min_length": 1, "max_length": 64}
    least: dict[str, int] = {}
    absent: set[str] = set()
    named: set[str] = set()
    unsure: list[str] = []
    for part in re.split(
        r"[;\n•·]|,(?!\d)|\.(?=\s|$)|\band\b(?=[^,;\n]*(?:least|most|no\b|must))", text
    ):
        said = part.strip(" -*\t").lower()
        if said and not _take(said, document, least, absent, named):
            unsure.append(part.strip())
    kinds = {k for name in named for k in (("lower", "upper") if name == "letter" else (name,))}
    classes: list[dict[str, Any]] = []
    letters = least.pop("letter", 0)
    if letters:
        classes.append({"name": "letter", "characters": LOWER + UPPER, "minimum": letters})
        if least.get("lower") or least.get("upper"):
            unsure.append(f"at least {letters} letters, beside demands on their case")
            classes.clear()
    for name, characters in STANDARD_CLASSES.items():
        covered = bool(classes) and classes[0]["name"] == "letter" and name in ("lower", "upper")
        if name in absent or covered or (kinds and name not in kinds and name not in least):
            continue
        classes.append({"name": name, "characters": characters, "minimum": least.get(name, 0)})
    document["classes"] = classes
    return RulesRead(document, tuple(unsure))


def _take(
    said: str,
    document: dict[str, Any],
    least: dict[str, int],
    absent: set[str],
    named: set[str],
) -> bool:
    """Whether one part of a plain list was understood as a whole."""
    remembered = _REMEMBERED.search(said) or _REMEMBERS.search(said)
    if remembered:
        count = remembered["count"]
        known = document.get("history_depth", 0)
        document["history_depth"] = max(known, _number(count) if count else 1)
        return True
    said = _SUBJECT.sub(lambda found: "no " if found["not"] else "", said)
    length = re.match(
        r"(?:must be |be |use |between )?([0-9]{1,3})\s*(?:to|-|–|and)\s*([0-9]{1,3})\b"
        r"(?:\s*characters?)?(?:\s*long)?",
        said,
    )
    if length:
        document["min_length"], document["max_length"] = _bounded(length[1]), _bounded(length[2])
        rest = said[length.end() :].strip()
        return not rest or _only(rest, named)
    bound = re.fullmatch(
        r".*?\b(at least|at most|minimum(?: of)?|maximum(?: of)?|no more than|up to)\s*([0-9]{1,3})"
        r"\s*(?:characters?|in length|long)?(?:\s*long)?",
        said,
    )
    if bound:
        low = bound[1].startswith(("at least", "minimum"))
        document["min_length" if low else "max_length"] = _bounded(bound[2])
        return True
    none = re.fullmatch(r"(?:no|without|must not (?:have|contain)) (.+)", said)
    if none:
        for name, shape in _PLAIN_CLASSES.items():
            if re.fullmatch(shape, none[1]):
                absent.update(("lower", "upper") if name == "letter" else (name,))
                return True
        return bool(re.fullmatch(r"(?:blanks?|spaces?)", none[1]))
    for name, shape in _PLAIN_CLASSES.items():
        demand = re.fullmatch(rf".*?\b(?:at least )?{_COUNT} {shape}", said)
        if demand:
            least[name] = max(least.get(name, 0), _number(demand["count"]))
            return True
    return _only(said, named)


def _number(count: str) -> int:
    return _bounded(count) if _NUMBER.fullmatch(count) else _NUMBERS.get(count, 1)


def _only(said: str, named: set[str]) -> bool:
    """`letters and digits`, `of letters, digits`: the kinds that a text may be made of."""
    words = re.split(
        r"\s*(?:,|\band\b|\bor\b|&)\s*", re.sub(r"^(?:of|only|from|using)\s+", "", said)
    )
    found = [n for w in words for n, s in _PLAIN_CLASSES.items() if re.fullmatch(s, w.strip())]
    if len(found) != len(words):
        return False
    named.update(found)
    return True
