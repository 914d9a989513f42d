"""Policies as a file: there and back, and every fault named by its place."""

import json
from datetime import UTC, datetime
from typing import Any

import pytest

from newknot.core.policy import NamedPolicy, SitePolicy
from newknot.exchange.policies_json import (
    FORMAT,
    PolicyEntry,
    PolicyFileRefused,
    read_policies,
    write_policies,
)

PLAIN = {"min_length": 8, "max_length": 16, "classes": [{"name": "d", "characters": "0123é🙂"}]}
RICH = {**PLAIN, "max_sequence_run": 3, "forbidden": ["ilse"], "folds_case": True, "excluded": "1"}


def file(*entries: Any, **head: Any) -> bytes:
    whole = {"format": FORMAT, "version": 1, "policies": list(entries), **head}
    return json.dumps(whole).encode()


def test_what_is_written_reads_back_the_same() -> None:
    policies = [SitePolicy.from_dict(d) for d in (PLAIN, RICH)]
    at = datetime(2026, 11, 25, 12, tzinfo=UTC)
    named = [
        NamedPolicy("0" * 32, f"N{i}", ("gantry.example",) * i, p, "refusal", at)
        for i, p in enumerate(policies)
    ]
    read = read_policies(write_policies(named))
    assert read == [
        PolicyEntry("policies.0", "N0", (), policies[0], False, "refusal", at),
        PolicyEntry("policies.1", "N1", ("gantry.example",), policies[1], False, "refusal", at),
    ]


def test_a_bare_policy_and_a_bare_list_are_read_too() -> None:
    policy = SitePolicy.from_dict(PLAIN)
    assert read_policies(json.dumps(PLAIN).encode())[0].policy == policy
    entries = [{"name": "A", "policy": PLAIN}]
    assert read_policies(b"\xef\xbb\xbf" + json.dumps(entries).encode())[0].policy == policy


@pytest.mark.parametrize(
    ("body", "at", "reason"),
    [
        (b"\xff\xfe{}", "", "is not UTF-8 text"),
        (b'{"a":\n1,', "line 2", "is not JSON"),
        (b"[" * 200_000, "", "is nested too deep or has too long a number"),
        (b"9" * 10_000, "", "is nested too deep or has too long a number"),
        (b"{}", "format", f"is not “{FORMAT}”, version 1"),
        (file(version=2), "format", f"is not “{FORMAT}”, version 1"),
        (file(policies={}), "policies", "is not a list"),
        (file(*[0] * 1_001), "policies", "is more than 1,000"),
        (file(3), "policies.0", "is not an object"),
        (file({"name": "A", "policy": PLAIN, "x": 1}), "policies.0.x", "is not a known key"),
        (file({"name": " ", "policy": PLAIN}), "policies.0.name", "is not a text"),
        (
            file({"name": "A", "domains": "a.example", "policy": PLAIN}),
            "policies.0.domains",
            "is not a list of at most 50 texts",
        ),
        (file({"name": "A"}), "policies.0.policy", "is not an object"),
        (
            file({"name": "A", "policy": {**PLAIN, "max_length": 10**9}}),
            "policies.0.policy.max_length",
            "is not between 1 and 10000",
        ),
        (
            file({"name": "A", "policy": {**PLAIN, "excluded": "\ud800"}}),
            "policies.0.policy.excluded",
            "holds half of a character pair",
        ),
    ],
)
def test_a_fault_is_named_by_its_place(body: bytes, at: str, reason: str) -> None:
    with pytest.raises(PolicyFileRefused) as refused:
        read_policies(body)
    assert refused.value.data == {"at": at, "reason": reason}
