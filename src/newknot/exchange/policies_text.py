"""Site policies as rule attribute text, a block each, for programs and people that read that.

    name: Gantry Rentals
    sites: gantryrentals.example
    learnt: refusal, 2026-06-12T10:00:00+00:00
    second factor: offered
    rules: minlength: 8; maxlength: 24; required: lower; allowed: digit;
    also: {"history_depth": 5}

rules: the text of the `passwordrules` attribute. also: what it has no words for, as in the JSON
file. A name that holds a line's end, or begins with a quote, stands as JSON does. Blocks are parted
by empty lines; lines that begin with # are not read.
"""

import json
import re
from collections.abc import Iterable, Iterator
from datetime import datetime
from typing import Any

from newknot.core.policy import NamedPolicy, SitePolicy
from newknot.core.policy.rules_text import read_rules, write_rules
from newknot.core.policy.site_policy import PolicyInvalid
from newknot.exchange.policies_json import (
    DOMAINS_LIMIT,
    ENTRIES_LIMIT,
    SOURCES,
    PolicyEntry,
    PolicyFileRefused,
)

HEAD = "# Site policies, as rule attribute text."
FIELDS = ("name", "sites", "learnt", "second factor", "rules", "also")
_LINE = re.compile(rf"({'|'.join(FIELDS)}):(?: (.*))?")
_RULES = re.compile(r"^rules:", re.MULTILINE)


def is_policies_text(body: bytes) -> bool:
    """Whether a file is of this form rather than JSON."""
    text = body.decode("utf-8-sig", "replace")
    return not text.lstrip().startswith(("{", "[")) and _RULES.search(text) is not None


def write_policies_text(policies: Iterable[NamedPolicy]) -> bytes:
    """The library; `read_policies_text` reads it back the same."""
    blocks = ["\n".join(_lines(one)) for one in policies]
    return ("\n\n".join([HEAD, *blocks]) + "\n").encode("utf-8")


def _lines(one: NamedPolicy) -> Iterator[str]:
    yield f"name: {_in_one_line(one.name)}"
    if one.domains:
        yield f"sites: {', '.join(one.domains)}"
    yield f"learnt: {one.source}, {one.changed_at.isoformat()}"
    if one.offers_second_factor:
        yield "second factor: offered"
    rules = write_rules(one.policy)
    yield f"rules: {rules}"
    said, whole = _said(rules), one.policy.to_dict()
    also = {key: whole[key] for key in whole if said.get(key) != whole[key]}
    if also:
        yield f"also: {json.dumps(also, ensure_ascii=False)}"


def _in_one_line(name: str) -> str:
    """As it is, or as a JSON text where it could be taken for more or less."""
    plain = "\n" not in name and "\r" not in name and not name.startswith('"')
    return name if plain else json.dumps(name, ensure_ascii=False)


def _name(number: int, text: str) -> str:
    text = text.strip()
    if not text.startswith('"'):
        return text
    try:
        name = json.loads(text)
    except ValueError:
        name = None
    if not isinstance(name, str) or not name.strip():
        raise PolicyFileRefused(at=f"line {number}", reason="is no name in quotes")
    return name


def _said(rules: str) -> dict[str, Any]:
    """The JSON form of what the attribute text says."""
    try:
        return SitePolicy.from_dict(read_rules(rules).document).to_dict()
    except PolicyInvalid:
        return {}


def read_policies_text(body: bytes) -> list[PolicyEntry]:
    """The entries of a file. Raises `PolicyFileRefused`, naming the line."""
    try:
        text = body.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise PolicyFileRefused(at="", reason="is not UTF-8 text") from None
    blocks: list[dict[str, tuple[int, str]]] = [{}]
    # Not by every sign that Unicode takes for the end of a line: a class may hold it.
    for number, line in enumerate(text.replace("\r\n", "\n").split("\n"), 1):
        if line.startswith("#"):
            continue
        if not line.strip():
            blocks.append({})
            continue
        found = _LINE.fullmatch(line)
        if found is None or found[1] in blocks[-1]:
            reason = "is none of its fields" if found is None else "is there twice"
            raise PolicyFileRefused(at=f"line {number}", reason=reason)
        blocks[-1][found[1]] = (number, found[2] or "")
    given = [block for block in blocks if block]
    if len(given) > ENTRIES_LIMIT:
        raise PolicyFileRefused(at="policies", reason=f"is more than {ENTRIES_LIMIT:,}")
    return [_entry(block) for block in given]


def _entry(block: dict[str, tuple[int, str]]) -> PolicyEntry:
    first = min(number for number, _ in block.values())
    for field in ("name", "rules"):
        if not block.get(field, (0, ""))[1].strip():
            raise PolicyFileRefused(at=f"line {first}", reason=f"has no {field}")
    at, rules = block["rules"]
    read = read_rules(rules)
    if read.unsure:
        raise PolicyFileRefused(at=f"line {at}", reason=f"not understood: {read.unsure[0][:80]}")
    document = dict(read.document)
    if "also" in block:
        at, text = block["also"]
        try:
            also = json.loads(text)
        except (ValueError, RecursionError):
            also = None
        if not isinstance(also, dict):
            raise PolicyFileRefused(at=f"line {at}", reason="is not a JSON object")
        document |= also
    try:
        policy = SitePolicy.from_dict(document)
    except PolicyInvalid as error:
        says = f"{error.data['field']}: {error.data['reason']}"
        raise PolicyFileRefused(at=f"line {at}", reason=says) from None
    number, sites = block.get("sites", (first, ""))
    domains = tuple(site.strip() for site in sites.split(",") if site.strip())
    if len(domains) > DOMAINS_LIMIT:
        raise PolicyFileRefused(at=f"line {number}", reason=f"is more than {DOMAINS_LIMIT}")
    source, changed_at = _learnt(*block.get("learnt", (first, "file")))
    return PolicyEntry(
        at=f"line {first}",
        name=_name(*block["name"]),
        domains=domains,
        policy=policy,
        offers_second_factor=block.get("second factor", (0, ""))[1] == "offered",
        source=source,
        changed_at=changed_at,
    )


def _learnt(number: int, text: str) -> tuple[Any, datetime | None]:
    source, _, when = (part.strip() for part in text.partition(","))
    if source not in SOURCES:
        raise PolicyFileRefused(at=f"line {number}", reason=f"is none of {', '.join(SOURCES)}")
    try:
        at = datetime.fromisoformat(when) if when else None
    except ValueError:
        at = None
    if when and (at is None or at.tzinfo is None):
        raise PolicyFileRefused(at=f"line {number}", reason="is no moment with its zone")
    return source, at
