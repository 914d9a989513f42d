"""Policies as rule attribute text: there and back whole, and every fault named by its line."""

from datetime import UTC, datetime

import pytest

from newknot.core.policy import NamedPolicy, SitePolicy
from newknot.core.policy.rules_text import read_rules
from newknot.exchange.policies_json import PolicyFileRefused
from newknot.exchange.policies_text import (
    is_policies_text,
    read_policies_text,
    write_policies_text,
)
from tests.support.random_policies import random_policies
from tests.support.vectors import examples

PLAIN = {"min_length": 8, "max_length": 16, "classes": [{"name": "d", "characters": "0123é🙂"}]}
RICH = {**PLAIN, "max_sequence_run": 3, "forbidden": ["ilse"], "folds_case": True, "excluded": "1"}
ODD = {**PLAIN, "classes": [{"name": "these", "characters": '-]; ,[#"a\u2028\x85', "minimum": 1}]}
NAMES = ("N: ", '"quoted" ', "two\nlines ")
AT = datetime(2026, 11, 25, 12, tzinfo=UTC)


def test_what_is_written_reads_back_the_same() -> None:
    policies = [*map(SitePolicy.from_dict, (PLAIN, RICH, ODD)), *random_policies(4, 80)]
    named = [
        NamedPolicy(
            f"{i:032}",
            f"{NAMES[i % 3]}{i}",
            ("gantry.example",) * (i % 3),
            one,
            "form",
            AT,
            i % 2 > 0,
        )
        for i, one in enumerate(policies)
    ]
    file = write_policies_text(named)
    assert is_policies_text(file) and not is_policies_text(b'{"rules": 1}')
    read = read_policies_text(b"\xef\xbb\xbf" + file.replace(b"\n", b"\r\n"))
    assert [one.policy for one in read] == policies
    for one, entry in zip(named, read, strict=True):
        given = (one.name, one.domains, one.offers_second_factor, one.source, one.changed_at)
        assert given == (
            *(entry.name, entry.domains, entry.offers_second_factor),
            *(entry.source, entry.changed_at),
        )


def test_other_programs_find_the_rules_as_they_know_them() -> None:
    policy = SitePolicy.from_dict({"min_length": 8, "max_length": 20, "history_depth": 5})
    file = write_policies_text([NamedPolicy("0" * 32, "Gantry", (), policy, "typed", AT)]).decode()
    rules = next(line for line in file.splitlines() if line.startswith("rules: "))
    assert read_rules(rules[7:]).unsure == () and "minlength: 8; maxlength: 20;" in rules
    assert '"history_depth": 5' in file


@pytest.mark.parametrize(("text", "at", "reason"), examples("policy_text_faults.json"))
def test_a_fault_is_named_by_its_line(text: str, at: str, reason: str) -> None:
    with pytest.raises(PolicyFileRefused) as refused:
        read_policies_text(text.encode())
    assert refused.value.data["at"] == at
    assert str(refused.value.data["reason"]).startswith(reason)
