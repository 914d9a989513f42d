"""Texts read piece by piece break what the policy says, whatever was forgotten in between."""

import random

import pytest

from newknot.core.generate.phrases.reading_rules import ReadingRules
from newknot.core.policy import SitePolicy

ALPHABET = "abcABC012-"
LOCAL = {"max_identical_run", "max_sequence_run", "forbidden", "first_from", "last_from"}


def some_policy(chance: random.Random) -> SitePolicy:
    words = ["".join(chance.choices(ALPHABET, k=chance.randint(1, 4))) for _ in range(2)]
    rules = {
        "max_identical_run": chance.choice([None, 1, 2]),
        "max_sequence_run": chance.choice([None, 1, 2, 3]),
        "first_from": chance.choice([None, "abcABC"]),
        "last_from": chance.choice([None, "012c"]),
        "forbidden": chance.choice([[], words]),
    }
    classes = [{"name": "all", "characters": ALPHABET}]
    return SitePolicy.from_dict({"min_length": 1, "max_length": 99, "classes": classes, **rules})


@pytest.mark.parametrize("seed", range(6))
def test_reading_in_pieces_agrees_with_the_policy(seed: int) -> None:
    chance = random.Random(seed)
    for _ in range(40):
        policy = some_policy(chance)
        rules = ReadingRules(policy)
        for _ in range(30):
            pieces = ["".join(chance.choices(ALPHABET, k=chance.randint(1, 3))) for _ in range(3)]
            at, broken = ReadingRules.START, False
            for piece, following in zip(pieces, [*pieces[1:], ""], strict=True):
                at = rules.after(at, piece)
                if at < 0:
                    broken = True
                    break
                at = rules.forgotten(at, frozenset(following[:1]))
            broken = broken or not rules.may_end(at)
            found = policy.violations("".join(pieces))
            assert broken == any(v.rule in LOCAL for v in found), (policy, pieces)
