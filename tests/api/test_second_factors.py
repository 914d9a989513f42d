"""Second factors: set up by picture or text, in force once accepted, backup codes struck off."""

import io
from datetime import timedelta

import segno
from PIL import Image

from tests.api.conftest import Api

BASE32 = "GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ"
ADDRESS = f"otpauth://totp/Keylight:ilse?secret={BASE32}&issuer=Keylight&digits=8&algorithm=SHA1"


def png(text: str, **how: object) -> bytes:
    out = io.BytesIO()
    segno.make(text).save(out, kind="png", scale=4, **how)
    return out.getvalue()


def test_a_picture_sets_the_codes_up_and_the_site_ends_it(api: Api) -> None:
    login_id = api.add()["login_id"]
    path = f"logins/{login_id}"
    for picture in (png(ADDRESS), png(ADDRESS, dark="white", light=None)):
        answer = api.call("POST", f"{path}/second-factor/picture", picture)
        assert answer.json() == {"second_factor": "setting_up"} and BASE32 not in answer.text
    code = api.ok("POST", f"{path}/code", {"purpose": "reveal"})
    assert len(code["code"]) == 8 and 1 <= code["valid_s"] <= 30
    api.clock.pass_s(code["valid_s"])
    assert api.ok("POST", f"{path}/code", {"purpose": "reveal"})["code"] == code["next_code"]
    assert api.ok("GET", path)["second_factor"] == "setting_up"
    api.ok("POST", f"{path}/second-factor/accepted")
    assert api.ok("GET", path)["second_factor"] == "here"
    typed = api.ok("POST", f"{path}/second-factor", {"code_key": "jbsw y3dp ehpk 3pxp"})
    assert typed == {"second_factor": "setting_up"}
    assert [e["field"] for e in api.ok("GET", path)["history"]] == ["key of its codes"]


def test_pictures_that_are_none_are_refused_and_change_nothing(api: Api) -> None:
    login_id = api.add()["login_id"]
    path = f"logins/{login_id}/second-factor"
    large = io.BytesIO()
    Image.new("1", (10_000, 5_000)).save(large, "PNG")
    for body, refusal in (
        (b"", "422 picture_refused"),
        (b"no picture", "422 picture_refused"),
        (png(ADDRESS)[:300], "422 picture_refused"),
        (large.getvalue(), "422 picture_refused"),
        (png("https://keylight.example"), "422 picture_without_key"),
        (png("otpauth://hotp/a?secret=" + BASE32), "422 field_invalid"),
        (b"0" * (10 << 20), "413 body_too_large"),
    ):
        assert api.refused("POST", f"{path}/picture", body) == refusal
    assert api.refused("POST", path, {"code_key": "not base 32 !"}) == "422 field_invalid"
    assert api.refused("POST", f"{path}/accepted") == "404 nothing_held"
    assert api.ok("GET", f"logins/{login_id}")["second_factor"] == "none"


def test_backup_codes_are_kept_in_order_and_struck_off(api: Api) -> None:
    login_id = api.add()["login_id"]
    path = f"logins/{login_id}/backup-codes"
    api.ok("PUT", path, {"text": "aaaa-1111\nbbbb-2222, cccc-3333\n\naaaa-1111"})
    api.ok("POST", f"{path}/1", {"used": True})
    listed = api.ok("POST", path, {"purpose": "reveal"})
    assert [(c["code"], c["used_at"] is not None) for c in listed] == [
        ("aaaa-1111", False),
        ("bbbb-2222", True),
        ("cccc-3333", False),
    ]
    api.clock.at -= timedelta(hours=1)
    api.ok("PUT", path, {"text": "bbbb-2222 \n dddd-4444"})
    (former,) = api.ok("GET", f"logins/{login_id}")["history"]
    assert former["since_at"] <= former["until_at"]
    api.ok("PUT", f"logins/{login_id}", {"title": "T", "secret": {"own": "another-one"}})
    used = [c["used_at"] is not None for c in api.ok("POST", path, {"purpose": "copy"})]
    assert used == [True, False]
    assert api.refused("POST", f"{path}/2", {"used": True}) == "404 nothing_held"
    assert api.refused("PUT", path, {"text": "\n".join(map(str, range(60)))}) == "422 field_invalid"


def test_an_earlier_key_of_codes_is_put_back_as_what_it_is(api: Api) -> None:
    login_id = api.add()["login_id"]
    path = f"logins/{login_id}"
    api.ok("POST", f"{path}/second-factor", {"code_key": BASE32})
    api.ok("POST", f"{path}/second-factor/accepted")
    first = api.ok("POST", f"{path}/code", {"purpose": "reveal"})["code"]
    api.clock.pass_s(1)
    api.ok("POST", f"{path}/second-factor", {"code_key": "jbsw y3dp ehpk 3pxp"})
    second = api.ok("POST", f"{path}/code", {"purpose": "reveal"})["code"]
    (earlier,) = api.ok("GET", path)["history"]
    api.clock.pass_s(1)
    as_secret = {"login_id": login_id, "earlier_id": earlier["earlier_id"]}
    assert api.refused("POST", "rotations", as_secret) == "404 nothing_held"
    api.ok("POST", f"{path}/history/{earlier['earlier_id']}/restore")
    assert api.ok("POST", f"{path}/code", {"purpose": "reveal"})["code"] == first != second
    sheet = api.ok("GET", path)
    assert sheet["secret_field_names"] == []
    assert [e["field"] for e in sheet["history"]] == ["key of its codes"] * 2
    body = {"title": "Gantry Rentals", "second_factor": "none"}
    api.clock.pass_s(1)
    api.ok("PUT", path, body)
    newest = max(api.ok("GET", path)["history"], key=lambda entry: entry["until_at"])
    gone = newest["earlier_id"]
    api.ok("POST", f"{path}/history/{gone}/restore")
    assert api.ok("GET", path)["second_factor"] == "here"
    assert api.ok("POST", f"{path}/code", {"purpose": "reveal"})["code"] == first
