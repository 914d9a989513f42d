"""The way back in: forgotten passphrase, sheets that were practised, renewed and voided."""

import io

import segno

from newknot.crypto.shares import split
from tests.api.conftest import Api

FRESH = "orchard velvet lantern quarry"


def sheets_of(api: Api, threshold: int = 1, count: int = 1) -> list[str]:
    body = {"threshold": threshold, "count": count}
    made = api.ok("POST", "recovery", body, **api.proof())
    return [sheet["words"] for sheet in made["sheets"]]


def recovered(api: Api, sheets: list[str], passphrase: str = FRESH) -> str:
    answer = api.call("POST", "vault/recover", {"sheets": sheets, "passphrase": passphrase})
    if not answer.is_success:
        return f"{answer.status_code} {answer.json()['code']}"
    api.http.headers["knot-session"] = answer.json()["token"]
    return ""


def test_a_forgotten_passphrase_and_the_sheet_in_the_drawer(api: Api) -> None:
    login_id = api.add()["login_id"]
    assert api.ok("GET", "recovery") is None
    assert api.refused("POST", "recovery", {"threshold": 1, "count": 1}) == "403 proof_needed"
    (sheet,) = sheets_of(api)
    assert api.ok("POST", "recovery/practice", {"sheets": [sheet]})["practised_at"]
    api.ok("POST", "vault/lock")
    assert recovered(api, [sheet], "weak") == "422 passphrase_too_weak"
    assert api.refused("GET", "logins") == "423 vault_locked"
    assert recovered(api, [sheet]) == ""
    assert api.secret_of(login_id) == "cue-to-cue-19"
    api.ok("POST", "vault/lock")
    assert api.refused("POST", "vault/unlock", {"passphrase": api.passphrase}) == (
        "403 wrong_passphrase"
    )
    api.passphrase = FRESH
    api.enter("unlock")
    facts = api.ok("GET", "recovery")
    assert (facts["threshold"], facts["count"]) == (1, 1) and facts["practised_at"]


def test_two_of_three_sheets_open_and_one_does_not(api: Api) -> None:
    sheets = sheets_of(api, 2, 3)
    api.ok("POST", "vault/lock")
    assert recovered(api, sheets[:1]) == "422 share_wrong"
    assert recovered(api, [sheets[0], sheets[0]]) == "422 share_wrong"
    assert recovered(api, sheets[1:]) == ""


def test_sheets_before_the_newest_are_void_and_all_when_said_so(api: Api) -> None:
    (old,) = sheets_of(api)
    (new,) = sheets_of(api)
    assert api.refused("POST", "recovery/practice", {"sheets": [old]}) == "403 sheets_void"
    api.ok("POST", "recovery/practice", {"sheets": [new]})
    api.ok("DELETE", "recovery", **api.proof())
    assert api.ok("GET", "recovery") is None
    api.ok("POST", "vault/lock")
    assert recovered(api, [new]) == "403 sheets_void"
    api.clock.pass_s(60)
    assert recovered(api, [old]) == "403 sheets_void"
    for _ in range(8):
        last = recovered(api, [old])
    assert last == "429 too_many_guesses"


def test_each_sheet_is_looked_at_by_itself_before_anything_is_opened(api: Api) -> None:
    sheets, others = sheets_of(api, 2, 3), sheets_of(api, 2, 3)
    api.ok("POST", "vault/lock")
    typed = [sheets[1], sheets[1], others[0], "velvet", sheets[0].upper()]
    looked = api.ok("POST", "vault/recover/look", {"sheets": typed})
    assert [(one["place"], bool(one["reason"])) for one in looked] == [
        (2, False),
        (2, True),
        (1, True),
        (None, True),
        (1, False),
    ]
    picture = io.BytesIO()
    segno.make(sheets[0], error="m").save(picture, kind="png", scale=3)
    answer = api.ok("POST", "vault/recover/picture", picture.getvalue())
    assert answer == {"texts": [sheets[0]]}
    assert api.refused("POST", "vault/recover/picture", b"none") == "422 picture_refused"


def test_the_picture_of_a_sheet_is_read_back_from_its_modules(api: Api) -> None:
    from PIL import Image

    made = api.ok("POST", "recovery", {"threshold": 2, "count": 2}, **api.proof())
    for sheet in made["sheets"]:
        rows = sheet["qr_rows"]
        image = Image.new("L", (len(rows), len(rows)))
        image.putdata([0 if bit == "1" else 255 for row in rows for bit in row])
        out = io.BytesIO()
        image.resize((len(rows) * 4, len(rows) * 4), Image.Resampling.NEAREST).save(out, "PNG")
        answer = api.ok("POST", "vault/recover/picture", out.getvalue())
        assert answer == {"texts": [sheet["words"]]}


def test_under_a_new_key_nothing_old_opens_the_vault_and_nothing_is_lost(api: Api) -> None:
    login_id = api.add()["login_id"]
    (sheet,) = sheets_of(api)
    body = {"current": "not this one", "passphrase": FRESH}
    assert api.refused("POST", "vault/new-key", body) == "403 wrong_passphrase"
    body["current"] = api.passphrase
    weak = {**body, "passphrase": "lantern1"}
    assert api.refused("POST", "vault/new-key", weak) == "422 passphrase_too_weak"
    assert api.secret_of(login_id) == "cue-to-cue-19"
    answer = api.ok("POST", "vault/new-key", body)
    assert api.refused("GET", "logins") == "401 session_unknown"
    api.http.headers["knot-session"] = answer["token"]
    assert api.secret_of(login_id) == "cue-to-cue-19" and api.ok("GET", "recovery") is None
    (backup,) = api.ok("GET", "backups")
    look = api.refused("POST", f"backups/{backup['name']}/look")
    assert look == "409 backup_of_other_key"
    api.ok("POST", "vault/lock")
    wrong = api.refused("POST", "vault/unlock", {"passphrase": api.passphrase})
    assert wrong == "403 wrong_passphrase" and recovered(api, [sheet]) == "403 sheets_void"
    api.clock.pass_s(60)
    api.passphrase = FRESH
    api.enter("unlock")


def test_sheets_of_another_vault_do_not_lock_this_one(api: Api) -> None:
    login_id = api.add()["login_id"]
    (sheet,) = sheets_of(api)
    (foreign,) = split(bytes(16), threshold=1, count=1)
    assert recovered(api, [foreign]) == "403 sheets_void"
    assert api.secret_of(login_id) == "cue-to-cue-19"
    assert recovered(api, [sheet]) == "" and api.secret_of(login_id) == "cue-to-cue-19"
