"""Bounds and defaults of the safeguards."""

import pytest

from newknot.core.errors import FieldInvalid
from newknot.core.safeguards import Act, ProofRule, Safeguards


def test_deleting_and_exporting_ask_for_the_passphrase_from_the_start() -> None:
    asked = {act for act, rule in Safeguards().proof_before.items() if rule is ProofRule.EACH}
    assert asked == {Act.DELETE, Act.EXPORT}


@pytest.mark.parametrize(
    "wrong", [{"lock_after_s": 1}, {"clipboard_clear_s": -1}, {"proof_before": {}}]
)
def test_what_is_outside_its_bounds_is_refused(wrong: dict[str, object]) -> None:
    with pytest.raises(FieldInvalid):
        Safeguards(**wrong)  # type: ignore[arg-type]
