"""Every operation of the document, with what it allows and what it does not: no fault of ours."""

from typing import Any

import pytest
import schemathesis
from hypothesis import HealthCheck, Phase, given, seed, settings
from schemathesis import APIOperation, GenerationMode
from schemathesis.core import NOT_SET

from newknot.api.app import make_api as bare_api
from tests.api.conftest import PORT, Api

EXAMPLES = 2
POLICY = {"min_length": 8, "max_length": 20}
LEFT_OUT = {"/vault/lock", "/vault/create", "/vault/recover", "/vault/unlock", "/vault/proof"}
"""They end the session that the others are tried in, or the tries that are free."""


@pytest.fixture
def ids(api: Api) -> dict[str, str]:
    """Ids of what there is, so that calls come further than the first look-up."""
    login = api.add("Gantry", address="https://gantry.example")["login_id"]
    policy = {"name": "Gantry", "domains": ["gantry.example"], "source": "typed", "policy": POLICY}
    return {
        "login_id": login,
        "rotation_id": api.ok("POST", "rotations", {"login_id": login})["rotation_id"],
        "policy_id": api.ok("POST", "policies", policy)["policy_id"],
        "name": api.ok("POST", "backups", **api.proof())["name"],
    }


def operations(api: Api) -> list[APIOperation[Any, Any, Any, Any]]:
    document = bare_api(api.keeper, port=PORT).openapi()
    found = [one.ok() for one in schemathesis.openapi.from_dict(document).get_all_operations()]  # type: ignore[union-attr]
    return [one for one in found if one.path not in LEFT_OUT]


def test_nothing_that_can_be_sent_makes_the_server_fail(api: Api, ids: dict[str, str]) -> None:
    answered: dict[str, set[int]] = {}
    token = api.http.headers["knot-session"]
    for operation in operations(api):
        for mode in (GenerationMode.POSITIVE, GenerationMode.NEGATIVE):
            known = {name: ids[name] for name in ids if f"{{{name}}}" in operation.path}
            if mode is GenerationMode.NEGATIVE and not can_be_wrong(operation):
                continue

            @seed(1)
            @settings(
                max_examples=EXAMPLES,
                deadline=None,
                database=None,
                phases=[Phase.generate],
                suppress_health_check=list(HealthCheck),
            )
            @given(operation.as_strategy(generation_mode=mode, path_parameters=known or None))
            def calls(case: schemathesis.Case[Any]) -> None:
                headers = {k: str(v) for k, v in dict(case.headers or {}).items()}
                answer = api.http.request(
                    case.method,
                    f"/api{case.formatted_path}",
                    params=case.query,
                    headers={**headers, "knot-session": token},
                    **content_of(case),
                )
                says = f"{case.method} {case.path} {case.query} {case.body!r}: {answer.text[:300]}"
                assert answer.status_code < 500, says
                answered.setdefault(case.path, set()).add(answer.status_code)

            calls()
            api.clock.pass_s(1)
            api.keeper.touch(3600)
    reached = [path for path, codes in answered.items() if any(code < 300 for code in codes)]
    assert len(answered) > 90 and len(reached) > len(answered) // 3


def can_be_wrong(operation: APIOperation[Any, Any, Any, Any]) -> bool:
    """Any text is an id: only what is beside the path can be otherwise than the document says."""
    return any((*operation.query, *operation.headers, *operation.body))


def content_of(case: schemathesis.Case[Any]) -> dict[str, Any]:
    if isinstance(case.body, bytes):
        return {"content": case.body}
    if not case.media_type or case.body is NOT_SET:
        return {}
    return {"json": case.body} if "json" in case.media_type else {"content": str(case.body)}
