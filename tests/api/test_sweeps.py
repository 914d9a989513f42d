"""Rules that hold for every route, read off the OpenAPI document."""

import json
import re
from pathlib import Path
from typing import Any

import pytest

import newknot.serving
import newknot.store.corpus_build  # noqa: F401 - so that every error class is known
from newknot.api.errors import STATUS
from newknot.core.errors import NewKnotError
from tests.api.conftest import ORIGIN, Api, document, routes
from tests.support.vectors import vectors

PROBLEMS = Path(__file__).parents[2] / "web" / "src" / "domain" / "problems.ts"
CANARY = "kumquat-lantern-77"
WITHOUT_SESSION = {
    *(("GET", path) for path in ("/vault", "/vault/words", "/strength/budgets")),
    *(("POST", f"/vault/{act}") for act in ("create", "unlock", "place", "place-beside")),
    *(("POST", f"/vault/{act}") for act in ("open-bundle", "recover")),
    *(("POST", f"/vault/recover/{act}") for act in ("look", "picture")),
}


def guarded(api: Api) -> list[tuple[str, str]]:
    """Those that need a session."""
    found = [route for route in routes() if route not in WITHOUT_SESSION]
    assert len(found) > 40
    return found


def filled(path: str) -> str:
    return "/api" + re.sub(r"{[^}]+}", "0" * 32, path)


def test_of_many_wrong_fields_the_first_are_named(api: Api) -> None:
    fields = api.call("POST", "campaigns", {"login_ids": [1] * 30}).json()["data"]["fields"]
    assert [one["field"] for one in fields] == [f"login_ids.{n}" for n in range(20)]


def test_locked_every_route_answers_423(api: Api) -> None:
    api.ok("POST", "vault/lock")
    for method, path in guarded(api):
        assert api.call(method, filled(path), {}).status_code == 423, path


@pytest.mark.parametrize(
    "halves",
    [
        {"cookie": "", "knot_session": "HEADER"},
        {"cookie": "COOKIE", "knot_session": ""},
        {"cookie": "COOKIE; COOKIE", "knot_session": "HEADER"},
        {"cookie": "newknot_47806=wrong", "knot_session": "HEADER"},
        {"cookie": "COOKIE", "knot_session": "wrong"},
        {"cookie": "newknot_1=x", "knot_session": "HEADER"},
    ],
)
def test_half_a_credential_is_none(api: Api, halves: dict[str, str]) -> None:
    cookie = f"newknot_47806={api.http.cookies['newknot_47806']}"
    header = api.http.headers["knot-session"]
    api.http.cookies.clear()
    sent = {k: v.replace("COOKIE", cookie).replace("HEADER", header) for k, v in halves.items()}
    for method, path in guarded(api):
        assert api.call(method, filled(path), {}, **sent).status_code == 401, path
    assert api.ok("GET", "vault/session", cookie=cookie, knot_session=header)


@pytest.mark.parametrize(
    ("headers", "status"),
    [
        ({"host": "localhost:47806"}, 421),
        ({"host": "127.0.0.1"}, 421),
        ({"host": "127.0.0.1:47806.evil.example"}, 421),
        ({"origin": "http://127.0.0.1:47807"}, 403),
        ({"origin": "null"}, 403),
        ({"origin": ORIGIN + "/"}, 403),
    ],
)
def test_another_host_or_origin_is_refused(api: Api, headers: dict[str, str], status: int) -> None:
    for method, path in routes():
        assert api.call(method, filled(path), {}, **headers).status_code == status, path


@pytest.mark.parametrize("site", ["", "cross-site", "same-site", "none"])
def test_without_origin_only_the_same_origin_is_answered(api: Api, site: str) -> None:
    del api.http.headers["origin"]
    assert api.refused("GET", "vault/session", sec_fetch_site=site) == "403 origin_refused"
    assert api.ok("GET", "vault/session", sec_fetch_site="same-origin")


def test_no_malformed_request_is_echoed(api: Api) -> None:
    bodies: list[Any] = [
        {CANARY: CANARY},
        {"secret": {"own": {"x": CANARY}, CANARY: 1}, "title": 4, "passphrase": [CANARY]},
        [CANARY],
        {
            "policy": {CANARY: 1, "min_length": CANARY},
            "length": CANARY,
            "name": "n",
            "domains": [],
            "mapping": [CANARY],
        },
        f'{{"passphrase": "{CANARY}'.encode(),
    ]
    for method, path in routes():
        if path in ("/vault/unlock", "/vault/lock"):
            continue
        if method in ("GET", "DELETE"):
            continue
        for body in bodies:
            answer = api.call(method, filled(path), body)
            assert answer.status_code < 500, (path, answer.text)
            if not answer.is_success:
                assert CANARY not in answer.text + str(answer.headers), path


def resolved(schema: dict[str, Any]) -> dict[str, Any]:
    """A schema of the document without its reference, and the first of its choices."""
    while True:
        if "$ref" in schema:
            schema = document()["components"]["schemas"][schema["$ref"].rsplit("/", 1)[1]]
        elif "anyOf" in schema:
            schema = schema["anyOf"][0]
        else:
            return schema


def texts_within(schema: dict[str, Any], depth: int = 0) -> list[tuple[str, Any]]:
    """(place of a text, a body with half of a pair there) for each text that a schema takes."""
    schema = resolved(schema)
    if schema.get("type") == "string":
        return [("", "a\ud800b")]
    if schema.get("type") == "array":
        inner = texts_within(schema["items"], depth + 1)
        return [(f"0.{place}".strip("."), [body]) for place, body in inner]
    if depth > 3:
        return []
    return [
        (f"{name}.{place}".strip("."), {name: body})
        for name, one in schema.get("properties", {}).items()
        for place, body in texts_within(one, depth + 1)
    ]


def test_half_of_a_character_pair_is_refused_by_its_field_whatever_the_route(api: Api) -> None:
    tried = 0
    for method, path in routes():
        operation = document()["paths"][path][method.lower()]
        content = operation.get("requestBody", {}).get("content", {})
        if "application/json" not in content:
            continue
        for place, body in texts_within(content["application/json"]["schema"]):
            tried += 1
            # `json` would refuse to write it: it is spelled as the standard allows.
            sent = json.dumps(body).encode()
            answer = api.call(method, filled(path), sent, content_type="application/json")
            assert (answer.status_code, answer.json()) == (
                422,
                {
                    "code": "field_invalid",
                    "data": {"field": place, "reason": "holds half of a character pair"},
                },
            ), (path, place)
    assert tried > 60


def least(schema: dict[str, Any]) -> Any:
    """The shortest value of a JSON schema."""
    if "$ref" in schema:
        return least(document()["components"]["schemas"][schema["$ref"].rpartition("/")[2]])
    if "anyOf" in schema:
        return least(schema["anyOf"][0])
    if "enum" in schema or "const" in schema:
        return schema["const"] if "const" in schema else schema["enum"][0]
    needed = {name: schema["properties"][name] for name in schema.get("required", ())}
    values: dict[str, Any] = {
        "object": lambda: {name: least(of) for name, of in needed.items()},
        "array": lambda: [least(schema["items"])],
        "integer": lambda: schema.get("minimum", 1),
        "boolean": lambda: True,
    }
    return values.get(schema.get("type", ""), lambda: "0" * 32)()


def least_body(method: str, path: str) -> Any:
    """The least that a route takes."""
    given = document()["paths"][path][method.lower()].get("requestBody", {"content": {}})
    return least(given["content"].get("application/json", {}).get("schema", {}))


def test_each_route_asks_for_the_proof_that_its_rule_is_for_and_no_other_does(api: Api) -> None:
    rules = dict.fromkeys(api.safeguards()["proof_before"], "each")
    api.ok("PUT", "safeguards", api.safeguards() | {"proof_before": rules}, **api.proof())
    asked: list[tuple[str, ...]] = []
    for method, path in guarded(api):
        body = least_body(method, path)
        answer = api.call(method, filled(path), body) if path != "/vault/lock" else None
        if answer is not None and "proof_needed" in answer.text:
            asked.append((method, path, answer.json()["data"]["act"]))
    assert sorted(asked) == sorted(vectors("proofs_of_routes.tsv"))


def test_an_id_of_another_kind_is_that_of_nothing(api: Api) -> None:
    """Also where what it is of was read just before."""
    login_id = api.add()["login_id"]
    kept = api.ok("POST", f"draws/{api.ok('POST', 'draws', {'length': 20})['draw_id']}/keep", {})
    # Of one text, so that the example is the same each time.
    rules = {"min_length": 1, "max_length": 1, "classes": [{"name": "any", "characters": "a"}]}
    site = {"name": "Odd", "domains": [], "source": "typed", "policy": rules}
    ids = {
        "login_id": login_id,
        "loose_end_id": kept["loose_end_id"],
        "rotation_id": api.ok("POST", "rotations", {"login_id": login_id})["rotation_id"],
        "campaign_id": api.ok("POST", "campaigns", {"login_ids": [login_id]})["campaign_id"],
        "policy_id": api.ok("POST", "policies", site)["policy_id"],
    }
    lists = ("logins", "loose-ends", "rotations", "campaigns", "policies")
    before = [api.ok("GET", path) for path in lists]
    tried = 0
    for method, path in routes():
        for kind, other in ((kind, other) for kind in ids for other in ids if kind != other):
            if f"{{{kind}}}" in path:
                at = filled(path.replace(f"{{{kind}}}", ids[other]))
                answer = api.call(method, at, least_body(method, path))
                assert answer.status_code in (403, 404, 422), (method, path, other, answer.text)
                tried += 1
    assert tried > 100
    for path, found in zip(lists, before, strict=True):
        assert api.ok("GET", path) == found


def test_lists_and_sheets_never_hold_a_secret(api: Api) -> None:
    login = api.add(secret={"own": CANARY}, secret_fields=[{"name": "pin", "value": CANARY}])
    other = api.add("Lumen", secret={"own": "other-" + CANARY})
    body = {"title": "Gantry Rentals", "secret": {"own": CANARY + "-2"}}
    api.ok("PUT", f"logins/{login['login_id']}", {**body, "secret_fields": [{"name": "pin"}]})
    rotation = api.ok(
        "POST", "rotations", {"login_id": other["login_id"], "secret": {"own": CANARY}}
    )
    api.ok("POST", "checks")
    given = {"login_id": login["login_id"], "rotation_id": rotation["rotation_id"]}
    for method, path in routes():
        if method != "GET":
            continue
        url = "/api" + re.sub(r"{([^}]+)}", lambda m: given.get(m[1], "0" * 32), path)
        assert CANARY not in api.call("GET", url).text, path


def test_every_answer_is_kept_out_of_caches(api: Api) -> None:
    for method, path in [*routes(), ("GET", "none"), ("GET", "/vault/none")]:
        headers = api.call(method, filled(path), {}).headers
        assert headers["cache-control"] == "no-store", path
        assert headers["x-content-type-options"] == "nosniff"
    page = api.call("GET", "/logins")
    policy = page.headers["content-security-policy"]
    nonce = re.search(r"nonce-([^']+)", policy)
    assert nonce is not None and nonce[1] in page.text
    assert "unsafe" not in policy and api.call("GET", "/").text != page.text


def test_a_worker_of_an_earlier_holder_of_the_port_ends_itself(api: Api) -> None:
    for path in ("/sw.js", "/assets-worker.js", "/service-worker.js"):
        answer = api.call("GET", path, service_worker="script")
        assert answer.headers["content-type"].startswith("text/javascript")
        assert "unregister()" in answer.text and answer.headers["cache-control"] == "no-store"
    assert "unregister" not in api.call("GET", "/sw.js").text


def test_a_body_that_is_too_large_or_of_no_length_is_refused(api: Api) -> None:
    assert api.refused("POST", "logins", b"x" * (1 << 20) + b"x") == "413 body_too_large"
    chunked = api.http.post("/api/logins", content=iter([b"{}"]))
    assert (chunked.status_code, chunked.json()["code"]) == (411, "length_required")
    assert api.refused("DELETE", "vault") == "405 method_refused"
    assert api.refused("GET", "nothing") == "404 not_found"


def subclasses(of: type[NewKnotError]) -> set[type[NewKnotError]]:
    return {of}.union(*(subclasses(c) for c in of.__subclasses__())) if of else set()


def test_every_error_has_a_status_and_a_sentence_on_screen() -> None:
    codes = {c.__new__(c).code for c in subclasses(NewKnotError) - {NewKnotError}}
    assert codes == set(STATUS)
    sentences = set(re.findall(r"^  (\w+): \(", PROBLEMS.read_text(), re.MULTILINE))
    guard = {"host_refused", "origin_refused", "length_required", "body_too_large"}
    assert codes | guard | {"request_invalid", "unexpected", "not_found"} <= sentences


def test_an_unexpected_fault_says_nothing_of_what_was_sent(
    api: Api, monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    def broken(*_: object, **__: object) -> None:
        raise RuntimeError(CANARY)

    monkeypatch.setattr("newknot.api.routers.logins.logins.use.list_logins", broken)
    assert api.refused("GET", "logins") == "500 unexpected"
    assert CANARY not in caplog.text and "RuntimeError" in caplog.text
    assert json.loads(api.call("GET", "logins").text) == {"code": "unexpected", "data": {}}
