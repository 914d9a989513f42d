"""Policies of any rules at the size of real ones: up to 64 characters, up to 20 forbidden texts."""

import random
from collections.abc import Iterator
from typing import Any

from newknot.core.policy import STANDARD_CLASSES, SitePolicy
from newknot.core.policy.policy_document import PolicyInvalid


def random_policies(seed: int, count: int) -> Iterator[SitePolicy]:
    """So many that are read at all."""
    chance = random.Random(seed)
    while count:
        try:
            policy = SitePolicy.from_dict(_document(chance))
        except PolicyInvalid:
            continue
        count -= 1
        yield policy


def _document(chance: random.Random) -> dict[str, Any]:
    classes = [_class(chance, n, c) for n, c in STANDARD_CLASSES.items() if chance.random() >= 0.3]
    least = chance.randint(1, 64)
    most = min(64, least + chance.choice([0, 0, 4, 12, 40]))
    alphabet = "".join(one["characters"] for one in classes) or "a"

    def some(count: int) -> str:
        return "".join(chance.sample(alphabet, min(len(alphabet), count)))

    def text() -> str:
        return "".join(chance.choices(alphabet, k=chance.choice([1, 1, 2, 2, 3, 4, 6])))

    optional: dict[str, Any] = {
        "min_classes": chance.randint(1, 4),
        "max_identical_run": chance.randint(1, 3),
        "max_sequence_run": chance.randint(1, 3),
        "excluded": some(chance.randint(1, 6)),
        "first_from": some(3),
        "last_from": some(3),
        "folds_case": True,
        "keeps_first": chance.randint(4, 20),
        "forbidden": [text() for _ in range(chance.randint(1, 20))],
    }
    rules = {name: value for name, value in optional.items() if chance.random() < 0.35}
    uses = chance.random()
    if uses < 0.2:
        rules["distinct"] = True
    elif uses < 0.4:
        rules["max_uses"] = chance.randint(1, 4)
    return {"min_length": least, "max_length": most, "classes": classes, **rules}


def _class(chance: random.Random, name: str, characters: str) -> dict[str, Any]:
    if chance.random() >= 0.7:
        characters = "".join(chance.sample(characters, chance.randint(1, len(characters))))
    one = {"name": name, "characters": characters, "minimum": chance.choice([0, 0, 1, 2, 5])}
    return one if chance.random() >= 0.25 else {**one, "maximum": chance.randint(0, 9)}
