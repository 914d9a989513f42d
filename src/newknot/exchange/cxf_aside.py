"""What is not understood of an item of the Credential Exchange Format: taken off, and put back.

Only what has no place in a login is kept so: a value that may be changed here never is.
"""

from collections.abc import Mapping
from typing import Any

REST = "further parts"
_OF_ITEM = frozenset(
    ("id", "creationAt", "modifiedAt", "title", "tags", "credentials", "extensions", "scope")
)
_OF_CREDENTIAL = {
    "basic-auth": frozenset(("type", "username", "password")),
    "totp": frozenset(("type", "secret", "period", "digits", "username", "algorithm", "issuer")),
    "note": frozenset(("type", "content")),
    "custom-fields": frozenset(("type", "fields")),
}
_USUAL = {"username": "string", "password": "concealed-string", "content": "string"}
_NO_VALUE: tuple[object, ...] = ([], {}, "", None)


def rest_of(item: Mapping[str, Any], *, own: str) -> dict[str, Any]:
    """What of an item no login has a place for; empty where there is nothing.

    own: the name of our own extension, which is placed.
    """
    scope, extensions = item.get("scope"), item.get("extensions")
    found = {
        "item": _but(item, _OF_ITEM),
        "scope": {
            key: value
            for key, value in (scope.items() if isinstance(scope, dict) else ())
            if key != "urls" and value not in _NO_VALUE
        },
        "extensions": [
            one
            for one in (extensions if isinstance(extensions, list) else ())
            if not isinstance(one, dict) or one.get("name") != own
        ],
        "credentials": _of_credentials(item.get("credentials")),
    }
    return {part: value for part, value in found.items() if value}


def put_back(item: dict[str, Any], rest: Mapping[str, Any]) -> dict[str, Any]:
    """The item with what was taken off it; what it says itself stays."""
    scope, extensions = _object(rest, "scope"), rest.get("extensions")
    back = {**_object(rest, "item"), **item}
    back["scope"] = {**item["scope"], **_but(scope, frozenset(("urls",)))}
    if isinstance(extensions, list):
        back["extensions"] = [*item["extensions"], *extensions]
    kinds, seen = _object(rest, "credentials"), set()
    credentials: list[dict[str, Any]] = []
    for one in item["credentials"]:
        kind = one.get("type")
        first = isinstance(kind, str) and kind not in seen
        credentials.append(_with(one, _object(kinds, kind)) if first else one)
        seen.add(kind)
    back["credentials"] = credentials
    return back


def _of_credentials(credentials: object) -> dict[str, Any]:
    """Of the first credential of each kind that is placed: kind -> what is left of it."""
    found: dict[str, Any] = {}
    for one in credentials if isinstance(credentials, list) else ():
        kind = one.get("type") if isinstance(one, dict) else None
        if not isinstance(kind, str) or kind in found or kind not in _OF_CREDENTIAL:
            continue
        rest = _but(one, _OF_CREDENTIAL[kind])
        for name, usual in _USUAL.items() if kind != "totp" else ():
            rest |= _named(name, _of_field(_object(one, name), {usual}))
        if kind == "custom-fields" and isinstance(one.get("fields"), list):
            labelled = {
                field["label"].strip(): _but(
                    _of_field(field, {"string", "concealed-string"}), frozenset(("label",))
                )
                for field in one["fields"]
                if isinstance(field, dict) and isinstance(field.get("label"), str)
            }
            rest |= _named("fields", {label: more for label, more in labelled.items() if more})
        found[kind] = rest
    return {kind: rest for kind, rest in found.items() if rest}


def _of_field(field: Mapping[str, Any], usual: set[str]) -> dict[str, Any]:
    rest = _but(field, frozenset(("value",)))
    kind = rest.get("fieldType")
    return _but(rest, frozenset(("fieldType",))) if kind is None or kind in usual else rest


def _with(credential: dict[str, Any], more: Mapping[str, Any]) -> dict[str, Any]:
    out = {**_but(more, frozenset(("fields",))), **credential}
    for name in _USUAL:
        if isinstance(out.get(name), dict):
            out[name] = {**out[name], **_but(_object(more, name), frozenset(("value",)))}
    by_label = _object(more, "fields")
    if isinstance(out.get("fields"), list):
        out["fields"] = [
            {**field, **_but(_object(by_label, field["label"]), frozenset(("value", "label")))}
            for field in out["fields"]
        ]
    return out


def _object(found: Mapping[str, Any], key: str) -> dict[str, Any]:
    value = found.get(key)
    return value if isinstance(value, dict) else {}


def _named(name: str, value: dict[str, Any]) -> dict[str, Any]:
    return {name: value} if value else {}


def _but(found: Mapping[str, Any], known: frozenset[str]) -> dict[str, Any]:
    return {key: value for key, value in found.items() if key not in known}
