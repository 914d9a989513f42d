"""Site policies as a JSON file: written whole, read with every fault named by its place.

    {"format": "newknot site policies", "version": 1,
     "policies": [{"name": "…", "domains": ["…"], "policy": {…}, "offers_second_factor": true}]}

A bare policy, or a list of entries, is read too.
"""

import json
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from newknot.core.errors import NewKnotError
from newknot.core.policy import NamedPolicy, SitePolicy
from newknot.core.policy.site_policy import PolicyInvalid

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


def write_policies(policies: Iterable[NamedPolicy]) -> bytes:
    """The file of a library; `read_policies` reads it back the same."""
    entries = [
        {
            "name": p.name,
            "domains": list(p.domains),
            "policy": _spoken(p.policy),
            **({"offers_second_factor": True} if p.offers_second_factor else {}),
        }
        for p in policies
    ]
    document = {"format": FORMAT, "version": VERSION, "policies": entries}
    return json.dumps(document, ensure_ascii=False, indent=1).encode("utf-8")


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
    if isinstance(document, Mapping) and "min_length" in document:
        return [PolicyEntry("", "Policy from a file", (), _policy(document, ""))]
    if isinstance(document, Mapping):
        if document.get("format") != FORMAT or document.get("version") != VERSION:
            raise PolicyFileRefused(at="format", reason=f"is not “{FORMAT}”, version {VERSION}")
        document = document.get("policies")
    if not isinstance(document, list):
        raise PolicyFileRefused(at="policies", reason="is not a list")
    if len(document) > ENTRIES_LIMIT:
        raise PolicyFileRefused(at="policies", reason=f"is more than {ENTRIES_LIMIT:,}")
    return [_entry(one, f"policies.{i}") for i, one in enumerate(document)]


def _entry(one: object, at: str) -> PolicyEntry:
    if not isinstance(one, Mapping):
        raise PolicyFileRefused(at=at, reason="is not an object")
    unknown = {str(key) for key in one} - {"name", "domains", "policy", "offers_second_factor"}
    if unknown:
        raise PolicyFileRefused(at=f"{at}.{min(unknown)}", reason="is not a known key")
    name, domains, policy = one.get("name"), one.get("domains", []), one.get("policy")
    if not isinstance(name, str) or not name.strip():
        raise PolicyFileRefused(at=f"{at}.name", reason="is not a text")
    texts = isinstance(domains, list) and all(isinstance(d, str) for d in domains)
    if not texts or len(domains) > DOMAINS_LIMIT:
        raise PolicyFileRefused(
            at=f"{at}.domains", reason=f"is not a list of at most {DOMAINS_LIMIT} texts"
        )
    if not isinstance(policy, Mapping):
        raise PolicyFileRefused(at=f"{at}.policy", reason="is not an object")
    offers = one.get("offers_second_factor", False)
    if not isinstance(offers, bool):
        raise PolicyFileRefused(at=f"{at}.offers_second_factor", reason="is not true or false")
    return PolicyEntry(at, name, tuple(domains), _policy(policy, f"{at}.policy."), offers)


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
