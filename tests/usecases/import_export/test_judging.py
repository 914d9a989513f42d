"""What a file would bring in: each row held against what is there."""

import csv
import io
from datetime import UTC, datetime
from typing import Any

import pytest

from newknot.core.login import SecondFactor
from newknot.exchange.portable_login import PortableLogin
from newknot.usecases.import_export.judging import dates_of, draft_of, read_file, rows_of
from newknot.usecases.logins.logins import LoginDates
from tests.api.conftest import Api
from tests.support.vectors import examples

FIRST, SECOND, NOW = (datetime(2026, 5, day, tzinfo=UTC) for day in (1, 2, 3))


@pytest.mark.parametrize("case", examples("judged_rows.json"))
def test_what_a_row_has_that_is_not_there(api: Api, case: dict[str, Any]) -> None:
    plain = {"address": "gantry.example", "user_name": "ilse", "secret": "rope"}
    for one in case["here"]:
        login = plain | one
        api.add(**login | {"secret": {"own": login["secret"]}})
    row = {"user": "ilse", "website": "gantry.example", "password": "rope"} | case["row"]
    text = io.StringIO()
    csv.writer(text).writerows((row.keys(), row.values()))
    table = api.ok("POST", "imports", text.getvalue().encode())
    path = f"imports/{table['import_id']}/preview"
    (found,) = api.ok("POST", path, {"mapping": table["mapping"]})["rows"]
    assert found["status"] == case["status"]
    assert [one["field"] for one in found["differs"]] == case.get("differs", [])
    if "can_take_fields" in case:
        assert found["can_take_fields"] is case["can_take_fields"]


def test_what_a_file_does_not_say_is_taken_from_what_it_says() -> None:
    known = PortableLogin("x", changed_at=SECOND, secret_since_at=FIRST)
    assert dates_of(known, NOW) == LoginDates(FIRST, SECOND, FIRST)
    assert dates_of(PortableLogin("x", changed_at=SECOND), NOW).created_at == SECOND
    here = PortableLogin("x", second_factor=SecondFactor.HERE)
    assert draft_of(here).second_factor is SecondFactor.NONE
    items = b'[{"title": "a"}, {"title": "b"}]'
    file = read_file(
        b'\xef\xbb\xbf\r\n{"version": {"major": 1}, "accounts": [{"items": %b}]}' % items
    )
    assert [one.login.title for one in file.logins] == ["a", "b"]
    assert rows_of(file, [2]).count(b"\n") == 2
