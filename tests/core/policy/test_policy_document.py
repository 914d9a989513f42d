"""Reading and writing the JSON form, and the sentence for each wrong one."""

from typing import Any

import pytest

from newknot.core.policy import SitePolicy
from newknot.core.policy.site_policy import PolicyInvalid
from tests.support.vectors import examples

(WHOLE,) = examples("whole_policy.json")


def test_what_is_written_is_read_back_the_same() -> None:
    policy = SitePolicy.from_dict(WHOLE)
    assert SitePolicy.from_dict(policy.to_dict()) == policy
    assert policy.to_dict() == {**WHOLE, "max_uses": None}


@pytest.mark.parametrize(("change", "field"), examples("wrong_policies.json"))
def test_a_wrong_document_names_its_field(change: dict[str, Any], field: str) -> None:
    with pytest.raises(PolicyInvalid) as caught:
        SitePolicy.from_dict({**WHOLE, **change})
    assert caught.value.data["field"] == field
