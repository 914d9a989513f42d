"""Where nothing can be drawn, the smallest single change that frees it is said."""

import pytest

from newknot.core.generate.characters.password_space import PasswordSpace, SpaceTooCostly
from newknot.core.generate.relaxation import relaxation_offered, smallest_relaxation
from newknot.core.policy import STANDARD_CLASSES, SitePolicy
from tests.core.generate.test_characters import Seeded

EVERY = [{"name": n, "characters": c, "minimum": 1} for n, c in STANDARD_CLASSES.items()]
# Too long and too much forbidden for its bounds.
STUCK = {"max_uses": 2, "forbidden": [a + b for a in "bcdfgh" for b in "aeiou"]}


def policy(**rules: object) -> SitePolicy:
    document = {"min_length": 64, "max_length": 64, "classes": EVERY, **STUCK, **rules}
    return SitePolicy.from_dict(document)


def test_the_change_that_lets_in_least_is_offered_and_frees_it() -> None:
    stuck = {"min_length": 40, "max_length": 40, "max_uses": 1}
    with pytest.raises(SpaceTooCostly) as refused, relaxation_offered(policy(**stuck), 40):
        PasswordSpace(policy(**stuck), 40).draw(Seeded(1))
    assert refused.value.data["frees"] == "without “no forbidden text”"
    assert len(PasswordSpace(policy(**stuck, forbidden=[]), 40).draw(Seeded(1))) == 40
    shorter = smallest_relaxation(policy(min_length=60), 40)
    assert shorter is not None and shorter.says == "without “at least 60 characters”"


def test_what_can_be_drawn_is_left_alone() -> None:
    free = policy(forbidden=[])
    with relaxation_offered(free, 64):
        assert len(PasswordSpace(free, 64).draw(Seeded(1))) == 64
