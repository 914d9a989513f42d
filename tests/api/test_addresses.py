"""Whose address it is, and places that are kept out."""

from tests.api.conftest import Api
from tests.api.test_outside import switch

CSV = "title,url,username,password\nOdd Job,https://oddjob.example,ilse,plank-and-rope\n"


def test_an_address_belongs_to_its_logins_or_only_resembles_theirs(api: Api) -> None:
    login = api.add("Fernbank", address="https://www.fernbank.example/in")
    own = api.ok("POST", "addresses", {"address": "fernbank.example/x?y"})
    assert [one["login_id"] for one in own["logins"]] == [login["login_id"]]
    assert own["resembles"] == [] and not own["is_kept_out"]
    label = "xn--" + "fernbаnk".encode("punycode").decode()
    seen = api.ok("POST", "addresses", {"address": f"https://{label}.example"})
    assert seen["logins"] == [] and seen["host"] == "fernbаnk.example"
    (one,) = seen["resembles"]
    assert (one["domain"], one["how"]) == ("fernbank.example", "other_alphabet")
    assert [login["title"] for login in one["logins"]] == ["Fernbank"]
    for wrong in ("", "ftp://fernbank.example", "https://user:pw@fernbank.example"):
        assert api.refused("POST", "addresses", {"address": wrong}) == "422 field_invalid"


def test_a_place_that_is_kept_out_is_skipped_by_import_until_it_is_let_in(api: Api) -> None:
    body = {"address": "https://www.oddjob.example/sign-up", "kept_out": True}
    assert api.ok("POST", "addresses/kept-out", body) == {"domain": "oddjob.example"}
    assert api.ok("POST", "addresses", {"address": "oddjob.example"})["is_kept_out"]
    table = api.ok("POST", "imports", CSV.encode())
    mapping = {"mapping": table["mapping"]}
    (row,) = api.ok("POST", f"imports/{table['import_id']}/preview", mapping)["rows"]
    assert row["status"] == "kept_out"
    api.ok("POST", "addresses/kept-out", body | {"kept_out": False})
    (row,) = api.ok("POST", f"imports/{table['import_id']}/preview", mapping)["rows"]
    assert row["status"] == "new"
    assert switch(api, kept_out=["https://a.b.oddjob.example/x", " oddjob.example "]) is None
    assert api.ok("GET", "safeguards")["kept_out"] == ["oddjob.example"]
    assert switch(api, kept_out=["", "oddjob.example"]) is None
    assert "kept_out.0" in (switch(api, kept_out=["ftp://x"]) or "")


PLANTED = r"https://evil.example\.fernbank.example/"


def test_an_address_that_a_browser_reads_otherwise_is_never_offered_to_the_real_login(
    api: Api,
) -> None:
    own = {"address": "https://fernbank.example", "user_name": "ilse"}
    login = api.add("Fernbank", **own)["login_id"]
    csv = f"title,url,username,password\nFernbank,{PLANTED},ilse,plank-and-rope\n"
    table = api.ok("POST", "imports", csv.encode())
    path = f"imports/{table['import_id']}"
    (row,) = api.ok("POST", f"{path}/preview", {"mapping": table["mapping"]})["rows"]
    assert row["status"] == "new"
    seen = api.ok("POST", "addresses", {"address": PLANTED})
    assert seen["host"] == "evil.example" and seen["logins"] == []
    added = api.add("Planted", address=PLANTED)
    kept = api.ok("GET", f"logins/{added['login_id']}")
    assert kept["address"] == "https://evil.example/.fernbank.example/"
    assert api.ok("POST", "addresses", {"address": kept["address"]})["domain"] == "evil.example"
    again = api.ok("POST", "addresses", {"address": "FERNBANK.example:443/x"})
    assert [one["login_id"] for one in again["logins"]] == [login]


def test_both_forms_of_one_address_are_one_on_import_and_everywhere(api: Api) -> None:
    login = api.add("Books", address="https://bücher.example", user_name="ilse")["login_id"]
    csv = "title,url,username,password\nBooks,https://xn--bcher-kva.example/,ilse,cue-to-cue-19\n"
    table = api.ok("POST", "imports", csv.encode())
    path = f"imports/{table['import_id']}"
    (row,) = api.ok("POST", f"{path}/preview", {"mapping": table["mapping"]})["rows"]
    assert row["status"] == "same"
    seen = api.ok("POST", "addresses", {"address": "xn--bcher-kva.example"})
    assert [one["login_id"] for one in seen["logins"]] == [login]
