"""Foreign pages are read in a child of its own, in bounded time and memory."""

from typing import Any

import pytest

from newknot.core.rotation.site_form import FormNotUnderstood
from newknot.outside.driven_site import read_page

FORM = b"""<form method=post action="/enter"><input name=who autocomplete=username>
<input type=password name=pw autocomplete=current-password></form><p role=alert>No.</p>"""


def test_forms_and_what_the_page_says_are_read() -> None:
    page = read_page(FORM)
    assert page.sign_in_form is not None and page.change_form is None
    assert page.sign_in_form.filled({"username": "ilse", "current-password": "x"}) == [
        ("who", "ilse"),
        ("pw", "x"),
    ]
    assert page.said == ("No.",)


@pytest.mark.parametrize(
    "body",
    [b"", b"\xff\xfe\x00", b"<" * 50_000, b"<form>" * 3_000, b"<input " + b"a=1 " * 20_000],
    ids=range(5),
)
def test_what_is_no_page_ends_in_an_answer_and_not_in_a_wait(body: Any) -> None:
    try:
        page = read_page(body)
    except FormNotUnderstood as error:
        assert error.data["reason"] == "sent a page that cannot be read"
        return
    assert page.sign_in_form is None and page.change_form is None
