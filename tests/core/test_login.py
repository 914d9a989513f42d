"""Texts that may be stored."""

import pytest

from newknot.core.errors import FieldInvalid
from newknot.core.login import checked_secret_text, checked_text


def test_titles_are_stripped_and_secrets_are_not() -> None:
    assert checked_text("  Gantry ", field="title") == "Gantry"
    assert checked_secret_text("  a b ", field="secret") == "  a b "


@pytest.mark.parametrize(("text", "needed"), [(" ", True), ("x" * 1001, False), ("\ud800", False)])
def test_what_cannot_be_stored_names_its_field(text: str, needed: bool) -> None:
    with pytest.raises(FieldInvalid) as caught:
        checked_text(text, field="title", needed=needed)
    assert caught.value.data["field"] == "title"
