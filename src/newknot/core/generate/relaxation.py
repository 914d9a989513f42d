"""The smallest change of one rule with which a policy can be drawn to, where it cannot as it is."""

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from newknot.core.errors import NewKnotError
from newknot.core.generate.characters.password_space import PasswordSpace, SpaceTooCostly
from newknot.core.generate.conflicting_rules import single_changes
from newknot.core.policy.site_policy import SitePolicy

WORK_MOST = 20_000
"""Additions that the count for one change may take."""


@dataclass(frozen=True, slots=True)
class Relaxation:
    """says: the change, in words; entropy_bits: of a draw to the changed policy."""

    says: str
    entropy_bits: float


def smallest_relaxation(policy: SitePolicy, length: int) -> Relaxation | None:
    """Of all single changes that leave room at this length, the one that lets in the least; None
    where no single one is enough.
    """
    found: Relaxation | None = None
    for says, changed in single_changes(policy):
        if not changed.min_length <= length <= changed.max_length:
            continue
        try:
            bits = PasswordSpace(changed, length, work_most=WORK_MOST).entropy_bits
        except NewKnotError:
            continue
        if found is None or bits < found.entropy_bits:
            found = Relaxation(says, bits)
    return found


@contextmanager
def relaxation_offered(policy: SitePolicy, length: int) -> Iterator[None]:
    """A draw that cannot be made says with which single change it could: `SpaceTooCostly`, with
    `frees` in its data.
    """
    try:
        yield
    except SpaceTooCostly as error:
        found = smallest_relaxation(policy, length)
        raise SpaceTooCostly(**error.data, frees=found.says if found else "") from None
