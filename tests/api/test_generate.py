"""Draws, loose ends and policies over the API."""

from typing import Any

import pytest

from newknot.core.generate.phrases.word_list import word_list
from tests.api.conftest import Api

DIGITS = {"name": "digit", "characters": "0123456789", "minimum": 2}
LOWER = {"name": "lower", "characters": "abcdefghijklmnopqrstuvwxyz"}
POLICY = {"min_length": 8, "max_length": 16, "classes": [LOWER, DIGITS]}


def test_draws_follow_the_policy_and_can_be_stepped_back(api: Api) -> None:
    draws = [api.ok("POST", "draws", {"length": 12, "policy": POLICY}) for _ in range(3)]
    assert all(len(d["secret"]) == 12 and sum(c.isdigit() for c in d["secret"]) >= 2 for d in draws)
    back = api.ok("GET", f"draws/{draws[2]['draw_id']}/before")
    assert back == draws[1]
    passing = api.ok(
        "POST", "draws", {"length": 9, "policy": POLICY, "replaces": draws[2]["draw_id"]}
    )
    assert api.ok("GET", f"draws/{passing['draw_id']}/before") == draws[1]
    assert api.refused("GET", f"draws/{draws[0]['draw_id']}/before") == "404 draw_unknown"


def test_the_newest_twenty_are_kept_and_gone_at_lock(api: Api) -> None:
    ids = [api.ok("POST", "draws", {"length": 20})["draw_id"] for _ in range(22)]
    assert api.refused("POST", f"draws/{ids[1]}/keep", {}) == "404 draw_unknown"
    api.keeper.lock()
    api.enter()
    assert api.refused("POST", f"draws/{ids[21]}/keep", {}) == "404 draw_unknown"


STUCK = {
    "min_length": 8,
    "max_length": 40,
    "classes": [{"name": "lower", "characters": "abcdefghijklmnopqrstuvwxyz"}],
    "max_uses": 2,
    "forbidden": ["ab", "cd", "ef", "gh"],
}
"""So little of what the lengths and uses allow is free of the texts that no draw is sure."""


@pytest.mark.parametrize(
    ("body", "refusal"),
    [
        ({"length": 0}, "422 length_refused"),
        ({"length": 10**9}, "422 length_refused"),
        ({"length": 17, "policy": POLICY}, "422 length_refused"),
        ({"length": 8, "policy": {**POLICY, "min_classes": 3}}, "422 space_empty"),
        ({"length": 8, "policy": {**POLICY, "classes": 3}}, "422 policy_invalid"),
        ({"length": 40, "policy": STUCK}, "422 space_too_costly"),
        ({"length": 8, "policy": {**POLICY, "first_from": ""}}, "422 space_empty"),
        ({"length": "12"}, "422 request_invalid"),
        ({"length": 8, "policy_id": "0" * 32}, "404 record_missing"),
    ],
)
def test_what_cannot_be_drawn_to_is_refused(api: Api, body: dict[str, Any], refusal: str) -> None:
    assert api.refused("POST", "draws", body) == refusal


ALL = [LOWER, DIGITS, {"name": "upper", "characters": "ABCDEFGHIJKLMNOPQRSTUVWXYZ", "minimum": 1}]


def test_words_are_drawn_to_the_site_at_hand(api: Api) -> None:
    policy = {"min_length": 8, "max_length": 40, "classes": ALL}
    saved = api.ok("POST", "policies", {"name": "G", "domains": [], "policy": policy})
    drawn = api.ok("POST", "draws/words", {"shape": {"words": 4}, "policy_id": saved["policy_id"]})
    assert drawn["secret"][0].isupper() and sum(c.isdigit() for c in drawn["secret"]) == 3
    assert [n.split(",")[0] for n in drawn["notes"]] == [
        "a random digit between the words", "capital first letters"
    ]  # fmt: skip
    # A few of the passphrases are longer than 40, and those are not among the counted.
    assert 61 < drawn["entropy_bits"] < 4 * 12.925 + 3 * 3.33
    login = api.add(secret={"draw_id": drawn["draw_id"]})
    assert api.secret_of(login["login_id"]) == drawn["secret"]
    assert login["entropy_bits"] == drawn["entropy_bits"]
    narrow = {"shape": {"words": 6}, "policy": POLICY}
    assert api.refused("POST", "draws/words", narrow) == "422 no_room"
    assert api.refused("POST", "draws/words", {"shape": {"words": 99}}) == "422 field_invalid"


def test_keeping_words_and_redrawing_others_costs_bits_and_says_so(api: Api) -> None:
    first = api.ok("POST", "draws/words", {})
    assert (first["entropy_bits"], first["looked_at"]) == (77.54, 1)
    body = {"after": first["draw_id"], "keep": [0, 2, 3, 4, 5]}
    second = api.ok("POST", "draws/words", body)
    assert [second["words"][i] for i in body["keep"]] == [first["words"][i] for i in body["keep"]]
    assert (second["looked_at"], second["whole_bits"]) == (7, 77.54)
    assert second["entropy_bits"] == 74.74
    third = api.ok("POST", "draws/words", {"after": second["draw_id"]})
    assert (third["looked_at"], third["entropy_bits"]) == (8, 74.54)
    for keep in ([6], [0, 1, 2, 3, 4, 5], [-1], [0.5]):
        refused = api.refused("POST", "draws/words", {"after": first["draw_id"], "keep": keep})
        assert refused.startswith("422")
    assert api.refused("POST", "draws/words", {"keep": [1]}) == "422 field_invalid"


def test_real_dice_pick_the_words(api: Api) -> None:
    shape = {"words": 2, "separator": "-"}
    body: dict[str, Any] = {"shape": shape, "faces": ["11111", "66666"]}
    drawn = api.ok("POST", "draws/dice", body)
    assert (drawn["secret"], drawn["entropy_bits"]) == ("aardvark-zoom", 25.84)
    for faces in (["11111"], ["11111", "11117"], ["1", "2"]):
        refused = api.refused("POST", "draws/dice", {"shape": shape, "faces": faces})
        assert refused == "422 field_invalid"
    coins = api.ok("GET", "draws/dice?sides=2&list_size=4096")
    assert coins == {"throws": 12, "counting": 1.0, "word_bits": 12.0}
    body = {
        "shape": {**shape, "list_size": 4096},
        "sides": 2,
        "faces": ["hhhhhhhhhhhh", "1 2 1 2 1 2 1 2 1 2 1 2"],
    }
    drawn = api.ok("POST", "draws/dice", body)
    assert drawn["entropy_bits"] == 24.0 and drawn["notes"] == ["12 throws to a word"]
    assert api.refused("GET", "draws/dice?sides=1") == "422 field_invalid"


def test_the_ring_of_draws_outlives_a_lock_and_is_emptied_on_purpose(api: Api) -> None:
    drawn = [api.ok("POST", "draws", {"length": 20}) for _ in range(3)]
    words = api.ok("POST", "draws/words", {})
    for _ in range(2):
        api.ok("POST", "vault/lock")
        api.enter()
        kept = api.ok("GET", "draws")
        assert [one["kind"] for one in kept] == ["words", *["characters"] * 3]
    newest = api.ok("GET", f"draws/{kept[0]['draw_id']}")
    assert {**newest, "draw_id": words["draw_id"]} == words
    eldest = api.ok("GET", f"draws/{kept[3]['draw_id']}")
    assert eldest["secret"] == drawn[0]["secret"]
    redrawn = api.ok("POST", "draws/words", {"after": newest["draw_id"], "keep": [0]})
    assert redrawn["words"][0] == words["words"][0]
    assert redrawn["looked_at"] > 1
    for _ in range(20):
        api.ok("POST", "draws", {"length": 20})
    api.ok("POST", "vault/lock")
    api.enter()
    assert len(api.ok("GET", "draws")) == 20
    api.ok("DELETE", "draws")
    assert api.ok("GET", "draws") == []
    api.ok("POST", "vault/lock")
    api.enter()
    assert api.ok("GET", "draws") == []


def test_sentences_pins_and_lines(api: Api) -> None:
    sentence = api.ok("POST", "draws/sentence", {"template": "short"})
    assert sentence["entropy_bits"] == 63.61 and sentence["secret"].endswith(".")
    again = api.ok("POST", "draws/sentence", {"after": sentence["draw_id"]})
    assert again["entropy_bits"] == 62.61
    saved = api.ok("POST", "policies", {"name": "G", "domains": [], "policy": POLICY})
    pin = api.ok("POST", "draws/pin", {"length": 6, "policy_id": saved["policy_id"]})
    assert pin["secret"].isdigit() and 19.5 < pin["entropy_bits"] < 19.93
    assert pin["breaks"] == ["shorter than 8"]
    line = api.ok("POST", "draws/line", {"line": "Nobody rigs 7 lamps on a wet ladder, Ilse"})
    assert line["secret"] == "Nr7loawl,I"
    assert (line["entropy_bits"], line["whole_bits"], line["is_exact"]) == (None, None, False)
    login = api.add(secret={"draw_id": line["draw_id"]})
    assert (login["made"], login["entropy_bits"]) == ("own", None)
    assert api.refused("POST", "draws/line", {"line": " "}) == "422 field_invalid"
    assert api.refused("POST", "draws/pin", {"length": 10**9}) == "422 field_invalid"


def test_the_same_worth_side_by_side(api: Api) -> None:
    rows = api.ok("POST", "draws/side-by-side", {"bits": 75})
    assert [row["kind"] for row in rows] == ["characters", "words", "sentence"]
    characters, words, sentence = rows
    assert [r["draw"]["entropy_bits"] >= 75 for r in rows] == [True] * 3
    assert (characters["says"], words["says"]) == ("12 characters", "6 words")
    assert characters["length"] == 12 < words["length"] < sentence["length"]
    assert words["key_presses"] == words["phone_taps"] == words["length"]
    assert characters["phone_taps"] > characters["key_presses"] > 12
    kept = api.ok("GET", f"draws/{words['draw']['draw_id']}")
    assert kept["secret"] == words["draw"]["secret"]
    narrow = api.ok("POST", "draws/side-by-side", {"bits": 75, "policy": POLICY})
    # What was beside it and not taken is gone at the lock.
    api.ok("POST", "vault/lock")
    api.enter()
    left = characters["draw"]["draw_id"]
    assert api.refused("GET", f"draws/{left}") == "404 draw_unknown"
    assert [r["problem_code"] for r in narrow] == [None, "not_worth_it", "no_room"]


def test_earlier_draws_are_listed_without_their_secrets(api: Api) -> None:
    drawn = [api.ok("POST", "draws", {"length": 12}), api.ok("POST", "draws/pin", {"length": 5})]
    listed = api.ok("GET", "draws")
    assert [one["draw_id"] for one in listed] == [one["draw_id"] for one in reversed(drawn)]
    assert [(one["kind"], one["length"]) for one in listed] == [("pin", 5), ("characters", 12)]
    assert not any(one["secret"] in str(listed) for one in drawn)


def test_a_copied_draw_is_a_loose_end_until_it_is_placed(api: Api) -> None:
    drawn = api.ok("POST", "draws", {"length": 20})
    kept = api.ok("POST", f"draws/{drawn['draw_id']}/keep", {"address": "gantry.example"})
    again = api.ok("POST", f"draws/{drawn['draw_id']}/keep", {})
    assert again == kept
    api.keeper.lock()
    api.enter()
    (loose,) = api.ok("GET", "loose-ends")
    assert (loose["length"], loose["address"]) == (20, "gantry.example")
    path = f"loose-ends/{loose['loose_end_id']}"
    assert api.ok("POST", f"{path}/secret", {"purpose": "copy"})["secret"] == drawn["secret"]
    login = api.add(secret={"loose_end_id": loose["loose_end_id"]})
    assert api.secret_of(login["login_id"]) == drawn["secret"]
    assert (login["made"], login["entropy_bits"]) == ("drawn", drawn["entropy_bits"])
    assert api.ok("GET", "loose-ends") == []


def test_placing_a_draw_by_itself_also_ties_its_loose_end(api: Api) -> None:
    drawn = api.ok("POST", "draws", {"length": 20})
    api.ok("POST", f"draws/{drawn['draw_id']}/keep", {})
    api.add(secret={"draw_id": drawn["draw_id"]})
    assert api.ok("GET", "loose-ends") == []


def test_a_loose_end_goes_only_on_purpose(api: Api) -> None:
    drawn = api.ok("POST", "draws", {"length": 20})
    kept = api.ok("POST", f"draws/{drawn['draw_id']}/keep", {})
    path = f"loose-ends/{kept['loose_end_id']}"
    assert api.refused("DELETE", path) == "403 proof_needed"
    assert api.refused("POST", "logins", {"title": "", "secret": {"draw_id": drawn["draw_id"]}})
    assert len(api.ok("GET", "loose-ends")) == 1
    api.ok("DELETE", path, **api.proof())
    assert api.ok("GET", "loose-ends") == []


def test_a_policy_is_kept_changed_and_found_by_site(api: Api) -> None:
    body = {"name": "Gantry", "domains": ["https://www.gantry.example/x"], "policy": POLICY}
    saved = api.ok("POST", "policies", body)
    assert saved["domains"] == ["gantry.example"]
    assert len(saved["worth"]["example"]) == 16 and saved["worth"]["is_exact"]
    clash = {**body, "name": "Other", "domains": ["rent.gantry.example"]}
    assert api.refused("POST", "policies", clash) == "422 field_invalid"
    read = api.ok("POST", "policies/read", {"text": saved["attribute_text"]})
    assert (read["policy"]["max_length"], read["unsure"]) == (16, [])
    login = api.add(address="https://rent.gantry.example")
    rotation = api.ok("POST", "rotations", {"login_id": login["login_id"]})
    assert rotation["staged_length"] == 16
    (listed,) = api.ok("GET", "policies")["policies"]
    assert listed["used_by"] == [
        {"login_id": login["login_id"], "title": "Gantry Rentals", "is_broken": True}
    ]
    conflicting = {**body, "policy": {**POLICY, "max_length": 7}}
    changed = api.ok("PUT", f"policies/{saved['policy_id']}", conflicting)
    assert changed["conflict"]["says"] == "at least 8 but at most 7 characters"
    stuck = api.ok(
        "PUT", f"policies/{saved['policy_id']}", {**body, "policy": {**STUCK, "min_length": 40}}
    )
    assert stuck["not_drawn"] == "space_too_costly"
    api.ok("DELETE", f"policies/{saved['policy_id']}")
    assert api.ok("GET", "policies")["policies"] == []


@pytest.mark.parametrize("form", ["json", "rules"])
def test_policies_go_out_as_a_file_and_come_in_again(api: Api, form: str) -> None:
    for name in ("Gantry", "Slate"):
        domains = [f"{name.lower()}.example"]
        api.ok("POST", "policies", {"name": name, "domains": domains, "policy": POLICY})
    file = api.call("GET", f"policies/file?form={form}").content
    slate = next(p for p in api.ok("GET", "policies")["policies"] if p["name"] == "Slate")
    api.ok("DELETE", f"policies/{slate['policy_id']}")
    gantry = api.ok("GET", "policies")["policies"][0]
    longer = {"name": "Gantry", "domains": gantry["domains"], "policy": {**POLICY, "min_length": 9}}
    api.ok("PUT", f"policies/{gantry['policy_id']}", {**longer, "source": "refusal"})
    more = {"name": "Lumen", "domains": ["lumen.example", "two.example"], "policy": POLICY}
    lumen = {**more, "domains": ["lumen.example"]}
    lumen_id = api.ok("POST", "policies", more)["policy_id"]
    other = api.call("GET", f"policies/file?form={form}").content
    api.ok("PUT", f"policies/{lumen_id}", lumen)
    # What differs in its sites alone differs.
    assert api.call("POST", "policies/file", other).json()["differing"] == ["Lumen"]
    api.ok("DELETE", f"policies/{lumen_id}")
    brought = api.call("POST", "policies/file", file).json()
    (parted,) = brought.pop("parted")
    assert brought == {"added": ["Slate"], "same": [], "differing": ["Gantry"]}
    assert parted["policy_id"] == gantry["policy_id"] and parted["policy"]["min_length"] == 8
    # How a policy was learnt, and when, travels with it.
    learnt = {p["name"]: p["source"] for p in api.ok("GET", "policies")["policies"]}
    assert learnt == {"Gantry": "refusal", "Slate": "typed"}
    api.clock.pass_s(60)
    brought = api.call("POST", "policies/file?replaces=true", file).json()
    parts = {"added": [], "same": ["Slate"], "differing": ["Gantry"], "parted": []}
    assert brought == parts
    assert api.call("GET", f"policies/file?form={form}").content == file


@pytest.mark.parametrize(
    ("body", "status", "code"),
    [
        (b"{}", 422, "policy_file_refused"),
        (b" " * (50 * 1024 * 1024), 413, "body_too_large"),
        (
            b'[{"name":"A","policy":{"min_length":1,"max_length":2}},'
            b'{"name":"B","domains":["no such site"],"policy":{"min_length":1,"max_length":2}}]',
            422,
            "field_invalid",
        ),
    ],
)
def test_a_policy_file_that_is_wrong_changes_nothing(
    api: Api, body: bytes, status: int, code: str
) -> None:
    answer = api.call("POST", "policies/file", body)
    assert (answer.status_code, answer.json()["code"]) == (status, code)
    if code == "field_invalid":
        assert answer.json()["data"]["field"] == "policies.1.domains.0"
    assert api.ok("GET", "policies")["policies"] == []


def test_a_loose_end_that_is_placed_in_a_login_that_is_there_is_loose_no_more(api: Api) -> None:
    login = api.add("Gantry")
    drawn = api.ok("POST", "draws", {"length": 20})
    loose = api.ok("POST", f"draws/{drawn['draw_id']}/keep", {})["loose_end_id"]
    body = {"title": "Gantry", "secret": {"loose_end_id": loose}}
    api.ok("PUT", f"logins/{login['login_id']}", body)
    assert api.secret_of(login["login_id"]) == drawn["secret"]
    assert api.ok("GET", "loose-ends") == []


def test_a_lock_that_cannot_write_the_ring_locks_all_the_same(
    api: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    def full(*_: object) -> None:
        raise OSError(28, "no space left")

    api.ok("POST", "draws", {"length": 20})
    monkeypatch.setattr("newknot.usecases.drawing.kept_draws.put_kept_draws", full)
    api.ok("POST", "vault/lock")
    assert not api.keeper.is_unlocked and api.keeper.draws.listed() == []
    api.enter()
    assert api.ok("GET", "draws") == []


def test_words_of_another_language_are_drawn_and_the_list_is_remembered(api: Api) -> None:
    shape = {"words": 4, "separator": "", "language": "de", "list_size": 2048}
    drawn = api.ok("POST", "draws/words", {"shape": shape})
    assert drawn["entropy_bits"] == 44.0 and len(drawn["words"]) == 4
    assert set(drawn["words"]) <= set(word_list(2048, "de"))
    assert api.ok("GET", "draws/dice?sides=2&list_size=2048&language=ru")["throws"] == 11
    begins_with = {"de": "die-", "fr": "les-", "es": "mis-", "en": "the-", "ru": "мои-"}
    for language, begins in begins_with.items():
        body = {"template": "longest", "joiner": "-", "capital": False, "language": language}
        sentence = api.ok("POST", "draws/sentence", body)
        assert sentence["secret"].startswith(begins) and sentence["entropy_bits"] > 126
    assert api.refused("POST", "draws/sentence", {"language": "it"}) == "422 request_invalid"
    wrong = {"shape": {**shape, "list_size": 7776}}
    assert api.refused("POST", "draws/words", wrong) == "422 field_invalid"
    assert api.ok("GET", "draws/list") == {"language": "en", "list_size": 7776}
    assert api.refused("PUT", "draws/list", {"language": "fr"}) == "422 field_invalid"
    api.ok("PUT", "draws/list", {"language": "fr", "list_size": 2048})
    *_, before = api.ok("GET", "draws")
    api.keeper.lock()
    api.enter()
    assert api.ok("GET", "draws/list") == {"language": "fr", "list_size": 2048}
    # Neither writes over the other.
    *_, after = api.ok("GET", "draws")
    assert {**after, "draw_id": ""} == {**before, "draw_id": ""}
    api.ok("DELETE", "draws")
    assert api.ok("GET", "draws/list")["language"] == "fr"


def test_a_policy_that_takes_latin_letters_alone_refuses_words_in_cyrillic(api: Api) -> None:
    shape = {"words": 3, "language": "ru", "list_size": 2048}
    wish = {"shape": shape, "policy": {**POLICY, "min_length": 1, "max_length": 60}}
    assert api.refused("POST", "draws/words", wish) == "422 no_room"
