"""Patterns of input elements: what is read takes and refuses as the pattern does."""

import random
import re

import pytest

from newknot.core.policy import SitePolicy
from newknot.core.policy.character_classes import DIGITS, LOWER, SYMBOLS, UPPER
from newknot.core.policy.rules_pattern import read_pattern
from newknot.core.policy.rules_text import read_rules

ALPHABET = LOWER + UPPER + DIGITS + SYMBOLS
PATTERNS = [
    r"[A-Za-z0-9]{8,16}",
    r"^(?=.*\d)(?=.*[a-z])(?=.*[A-Z]).{8,}$",
    r"^(?=.*[A-Za-z])(?=.*\d)(?=.*[@$!%*#?&])[A-Za-z\d@$!%*#?&]{8,20}$",
    r"(?=.*?[A-Z])(?=.*?[a-z])(?=.*?[0-9])(?=.*?[#?!@$ %^&*-]).{8,64}",
    r"(?=(?:.*\d){2})(?!.*\s).{9,30}",
    r"(?=.{8,20}$)(?=.*\d)[\w.-]+",
    r"\d{6}",
    r"[^<>&]{6,12}",
    r"(?!.*[<>])(?=.*\W).{5,9}",
]


@pytest.mark.parametrize("pattern", PATTERNS)
def test_the_policy_takes_and_refuses_as_the_pattern_does(pattern: str) -> None:
    read = read_rules(f"<input pattern='{pattern.replace('&', '&amp;')}'>")
    assert read.unsure == ()
    policy, chance = SitePolicy.from_dict(read.document), random.Random(3)
    taken = 0
    for _ in range(3_000):
        some = "".join(chance.sample(ALPHABET, 6)) if chance.random() < 0.5 else ALPHABET
        text = "".join(
            chance.choices(some + DIGITS * chance.randint(0, 3), k=chance.randint(4, 24))
        )
        takes = re.fullmatch(pattern, text) is not None
        assert takes == (not policy.violations(text)), text
        taken += takes
    assert 0 < taken < 3_000


@pytest.mark.parametrize(
    "pattern",
    [
        *("", "(", "(a|b)+", "(?=.*[a-z]", "[a-z]", ".{8,}x", "(?=.*[a-z]).*[0-9]"),
        *("(" * 5_000, "[a-" * 3_000),
    ],
)
def test_another_make_is_not_read(pattern: str) -> None:
    assert read_pattern(pattern) is None
