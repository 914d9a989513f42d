"""Site policies as a JSON file: written whole, read with every fault named by its place.

    {"format": "newknot site policies", "version": 1,
     "policies": [{"name": "…", "domains": ["…"], "policy": {…}, "offers_second_factor": true,
                   "source": "refusal", "changed_at": "…"}]}

source: how it was learnt, and when. A bare policy, or a list of entries, is read too.
"""

import json
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any, Literal, get_args

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field, ValidationError

from newknot.core.errors import NewKnotError
from newknot.core.policy import NamedPolicy, SitePolicy
from newknot.core.policy.site_policy import PolicyInvalid

Source = Literal["typed", "form", "refusal", "file"]
SOURCES: tuple[Source, ...] = get_args(Source)
FORMAT, VERSION = "newknot site policies", 1
ENTRIES_LIMIT = 1_000
DOMAINS_LIMIT = 50


class PolicyFileRefused(NewKnotError):
    """A file that is none of site policies. data: at (place in the file), reason."""


@dataclass(frozen=True, slots=True)
class PolicyEntry:
    """One policy of a file; at: its place, as `policies.3`."""

    at: str
    name: str
    domains: tuple[str, ...]
    policy: SitePolicy
    offers_second_factor: bool = False
    source: Source = "file"
    changed_at: datetime | None = None


def write_policies(policies: Iterable[NamedPolicy]) -> bytes:
    """The file of a library; `read_policies` reads it back the same."""
    entries = [
        {
            "name": p.name,
            "domains": list(p.domains),
            "policy": _spoken(p.policy),
            **({"offers_second_factor": True} if p.offers_second_factor else {}),
            "source": p.source,
            "changed_at": p.changed_at.isoformat(),
        }
        for p in policies
    ]
    document = {"format": FORMAT, "version": VERSION, "policies": entries}
    return json.dumps(document, ensure_ascii=False, indent=1).encode("utf-8")


class _Entry(BaseModel):
    model_config = ConfigDict(extra="forbid", strict=True)

    name: Annotated[str, Field(pattern=r"\S")]
    domains: Annotated[list[str], Field(max_length=DOMAINS_LIMIT)] = []
    policy: dict[str, Any]
    offers_second_factor: bool = False
    source: Source = "file"
    changed_at: Annotated[AwareDatetime | None, Field(strict=False)] = None


class _Library(BaseModel):
    format: Literal["newknot site policies"]
    version: Literal[1]
    policies: list[Any]


_WRONG = {
    "name": "is not a text",
    "domains": f"is not a list of at most {DOMAINS_LIMIT} texts",
    "policy": "is not an object",
    "offers_second_factor": "is not true or false",
    "source": "is none of typed, form, refusal and file",
    "changed_at": "is not a moment with its zone, as 2026-11-25T12:00:00Z",
}


def read_policies(body: bytes) -> list[PolicyEntry]:
    """The entries of a file. Raises `PolicyFileRefused`."""
    try:
        document = json.loads(body.decode("utf-8-sig"))
    except UnicodeDecodeError:
        raise PolicyFileRefused(at="", reason="is not UTF-8 text") from None
    except json.JSONDecodeError as error:
        raise PolicyFileRefused(at=f"line {error.lineno}", reason="is not JSON") from None
    except (RecursionError, ValueError):
        raise PolicyFileRefused(
            at="", reason="is nested too deep or has too long a number"
        ) from None
    if isinstance(document, dict) and "min_length" in document:
        return [PolicyEntry("", "Policy from a file", (), _policy(document, ""))]
    entries = document if isinstance(document, list) else _of_library(document)
    if len(entries) > ENTRIES_LIMIT:
        raise PolicyFileRefused(at="policies", reason=f"is more than {ENTRIES_LIMIT:,}")
    return [_entry(one, f"policies.{i}") for i, one in enumerate(entries)]


def _of_library(document: object) -> list[Any]:
    try:
        return _Library.model_validate(document).policies
    except ValidationError as error:
        places = {one["loc"][0] for one in error.errors(include_input=False) if one["loc"]}
        if places == {"policies"} or not isinstance(document, dict):
            raise PolicyFileRefused(at="policies", reason="is not a list") from None
        says = f"is not “{FORMAT}”, version {VERSION}"
        raise PolicyFileRefused(at="format", reason=says) from None


def _entry(given: object, at: str) -> PolicyEntry:
    if not isinstance(given, dict):
        raise PolicyFileRefused(at=at, reason="is not an object")
    try:
        one = _Entry.model_validate(given)
    except ValidationError as error:
        first = min(error.errors(include_input=False), key=lambda e: e["type"] != "extra_forbidden")
        field = str(first["loc"][0])
        reason = _WRONG.get(field, "is not a known key")
        raise PolicyFileRefused(at=f"{at}.{field}", reason=reason) from None
    policy = _policy(one.policy, f"{at}.policy.")
    domains = tuple(one.domains)
    return PolicyEntry(
        at, one.name, domains, policy, one.offers_second_factor, one.source, one.changed_at
    )


def _policy(document: Mapping[str, Any], at: str) -> SitePolicy:
    try:
        return SitePolicy.from_dict(document)
    except PolicyInvalid as error:
        place, reason = f"{at}{error.data['field']}", str(error.data["reason"])
        raise PolicyFileRefused(at=place, reason=reason) from None


def _spoken(policy: SitePolicy) -> dict[str, Any]:
    """The JSON form without what is as usual."""
    usual = SitePolicy(policy.min_length, policy.max_length).to_dict()
    keep = {"min_length", "max_length", "classes"}
    return {k: v for k, v in policy.to_dict().items() if k in keep or v != usual[k]}
