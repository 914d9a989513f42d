"""What a site repeats of a secret is left out, whatever form it gives it; its other words stay."""

from collections.abc import Callable
from html import escape
from urllib.parse import quote, quote_plus

import pytest
from hypothesis import given
from hypothesis import strategies as st

from newknot.core.rotation.echo import MASK, without_echo
from newknot.core.secret import Secret

SECRET = "Qv7#mT&k<2wZ!9rB"
FORMS: dict[str, Callable[[str], str]] = {
    "as it is": str,
    "in capitals": str.upper,
    "in small letters": str.lower,
    "reversed": lambda text: text[::-1],
    "its beginning": lambda text: text[:5],
    "its end": lambda text: text[-4:],
    "its middle, reversed": lambda text: text[4:9][::-1],
    "in entities": escape,
    "in numbered entities": lambda text: "".join(f"&#{ord(c)};" for c in text),
    "in hexadecimal entities": lambda text: "".join(f"&#x{ord(c):X};" for c in text),
    "percent-encoded": quote,
    "percent-encoded all of it": lambda text: "".join(f"%{ord(c):02x}" for c in text),
    "percent-encoded twice": lambda text: quote(quote_plus(text)),
    "an entity of an entity": lambda text: escape(escape(text)),
    "within an address": lambda text: f"https://site.example/?was={quote(text)}&next=1",
    "in quotes": lambda text: f"“{text}”.",
}


@pytest.mark.parametrize("form", FORMS.values(), ids=list(FORMS))
def test_each_form_is_left_out_and_the_words_around_it_stay(form: Callable[[str], str]) -> None:
    said = f"Your new password {form(SECRET)} was not accepted"
    told = without_echo(said, [Secret("other-one"), Secret(SECRET)])
    before, after = "Your new password ", " was not accepted"
    assert told.startswith(before + MASK) and told.endswith(after)
    assert told.removeprefix(before + MASK).removesuffix(after) in ("", ".", ";")


def test_words_of_a_passphrase_are_left_out_one_by_one() -> None:
    said = "We do not take LANTERN or tevlev in a password"
    assert without_echo(said, [Secret("velvet lantern quarry")]) == (
        "We do not take … or … in a password"
    )


def test_a_short_secret_counts_whole_and_a_word_that_shares_a_little_stays() -> None:
    assert without_echo(
        "not 471, but 8 to 20 characters.", [Secret("471"), Secret("charm-7Q")]
    ) == ("not …, but 8 to 20 characters.")


@given(st.text(st.characters(codec="ascii", exclude_characters=" \n"), min_size=4, max_size=30))
def test_no_part_of_it_is_left(secret: str) -> None:
    said = without_echo(f"it was {secret} and {secret[::-1].upper()} here", [Secret(secret)])
    left = said.casefold().split(" ")
    assert not any(secret.casefold()[i : i + 4] in word for word in left
                   for i in range(len(secret.casefold()) - 3) if secret.strip())  # fmt: skip
