"""Logins as JSON of the FIDO Alliance's Credential Exchange Format 1.0: header, account, items,
collections. Basic logins, TOTP, notes and custom fields are placed; a credential of another kind is
kept aside, as JSON in a secret field, and given back.
"""

import json
from base64 import b32decode, urlsafe_b64encode
from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from datetime import UTC, datetime
from typing import Any
from urllib.parse import parse_qs, quote, unquote, urlencode, urlsplit

from newknot.core.errors import NewKnotError
from newknot.core.login import Importance, PlainField, SecretField
from newknot.core.secret import Secret
from newknot.exchange.portable_login import PortableLogin, ReadLogin, with_names_apart

SIZE_MOST = 20 << 20
ITEMS_MOST, DEPTH_MOST = 100_000, 64
ASIDE = "kept aside: "
OWN_EXTENSION = "newknot"
_PLAIN, _HIDDEN = "string", "concealed-string"


class CxfRefused(NewKnotError):
    """What is no file of this format, or too large. data: reason."""


def write_cxf(
    logins: Sequence[PortableLogin], *, now: datetime, new_id: Callable[[], bytes]
) -> bytes:
    """One account with all logins, a collection for each folder. new_id gives ids of 16 bytes."""

    def fresh() -> str:
        return urlsafe_b64encode(new_id()).decode().rstrip("=")

    items: list[dict[str, Any]] = []
    folders: dict[str, list[dict[str, str]]] = {}
    for one in logins:
        item_id = fresh()
        items.append(_item(one, item_id, now))
        if one.folder:
            folders.setdefault(one.folder, []).append({"item": item_id})
    document = {
        "version": {"major": 1, "minor": 0},
        "exporterRpId": "newknot.localhost",
        "exporterDisplayName": "New Knot",
        "timestamp": int(now.timestamp()),
        "accounts": [
            {
                "id": fresh(),
                "username": "",
                "email": "",
                "collections": [
                    {"id": fresh(), "title": title, "items": linked}
                    for title, linked in folders.items()
                ],
                "items": items,
            }
        ],
    }
    return json.dumps(document, ensure_ascii=False, indent=1).encode("utf-8")


def read_cxf(body: bytes) -> list[ReadLogin]:
    """Each item as a login, in order. Raises `CxfRefused`."""
    if len(body) > SIZE_MOST:
        raise CxfRefused(reason=f"is larger than {SIZE_MOST >> 20} MiB")
    try:
        document = json.loads(body.decode("utf-8-sig"))
    except (UnicodeDecodeError, ValueError, RecursionError):
        raise CxfRefused(reason="is not JSON in UTF-8") from None
    if not _is_shallow(document):
        raise CxfRefused(reason=f"is nested deeper than {DEPTH_MOST}")
    version = document.get("version") if isinstance(document, Mapping) else None
    if not isinstance(version, Mapping) or version.get("major") != 1:
        raise CxfRefused(reason="is not of version 1 of the Credential Exchange Format")
    accounts = document.get("accounts")
    if not isinstance(accounts, list):
        raise CxfRefused(reason="has no accounts")
    found: list[ReadLogin] = []
    for account in accounts:
        folders = _folders(account)
        for item in _list(account, "items"):
            found.append(_read_item(item, len(found) + 1, folders))
            if len(found) > ITEMS_MOST:
                raise CxfRefused(reason=f"has more than {ITEMS_MOST:,} items")
    return found


def _item(one: PortableLogin, item_id: str, now: datetime) -> dict[str, Any]:
    credentials: list[dict[str, Any]] = [
        {
            "type": "basic-auth",
            "username": {"fieldType": _PLAIN, "value": one.user_name},
            "password": {"fieldType": _HIDDEN, "value": one.secret.reveal()},
        }
    ]
    own: dict[str, Any] = {"owner": one.owner, "importance": one.importance.value}
    if one.expires_on is not None:
        own["expires_on"] = one.expires_on.isoformat()
    totp = _totp(one.code_key.reveal())
    if totp is not None:
        credentials.append(totp)
    elif len(one.code_key):
        own["code_key"] = one.code_key.reveal()
    if one.notes:
        credentials.append({"type": "note", "content": {"fieldType": _PLAIN, "value": one.notes}})
    fields = [
        *({"fieldType": _PLAIN, "label": f.name, "value": f.value} for f in one.fields),
        *(
            {"fieldType": _HIDDEN, "label": f.name, "value": f.value.reveal()}
            for f in one.secret_fields
            if not f.name.startswith(ASIDE)
        ),
    ]
    if fields:
        credentials.append({"type": "custom-fields", "fields": fields})
    for field in one.secret_fields:
        if field.name.startswith(ASIDE):
            credentials.append(json.loads(field.value.reveal()))
    return {
        "id": item_id,
        "creationAt": int((one.created_at or now).timestamp()),
        "modifiedAt": int((one.changed_at or now).timestamp()),
        "title": one.title,
        "scope": {"urls": [one.address] if one.address else [], "androidApps": []},
        "tags": list(one.tags),
        "credentials": credentials,
        "extensions": [{"name": OWN_EXTENSION, **own}],
    }


def _read_item(item: object, place: int, folders: Mapping[str, str]) -> ReadLogin:
    if not isinstance(item, Mapping):
        return ReadLogin(place, "is no item", PortableLogin(""))
    urls = [str(url) for url in _list(item.get("scope"), "urls")]
    login = PortableLogin(
        title=_text(item, "title").strip() or (urls[0] if urls else ""),
        address=urls[0] if urls else "",
        folder=folders.get(_text(item, "id"), ""),
        tags=tuple(str(tag).strip() for tag in _list(item, "tags") if str(tag).strip()),
        fields=tuple(PlainField("further address", url) for url in urls[1:]),
        created_at=_moment(item.get("creationAt")),
        changed_at=_moment(item.get("modifiedAt")),
    )
    left: list[str] = []
    for credential in _list(item, "credentials"):
        login = _placed(login, credential, left)
    for extension in _list(item, "extensions"):
        if isinstance(extension, Mapping) and extension.get("name") == OWN_EXTENSION:
            login = _own(login, extension)
    login = replace(login, secret_fields=with_names_apart(login.secret_fields))
    reason = "" if login.title else "has neither a title nor an address"
    return ReadLogin(place, reason, login, tuple(left))


def _placed(login: PortableLogin, credential: object, left: list[str]) -> PortableLogin:
    if not isinstance(credential, Mapping):
        left.append("a credential that is no object")
        return login
    kind = _text(credential, "type")
    if kind == "basic-auth":
        name, secret = _value(credential, "username"), _value(credential, "password")
        if len(login.secret) or (login.user_name and name != login.user_name):
            extra = SecretField(f"secret of {name or 'a further login'}", Secret(secret))
            return replace(login, secret_fields=(*login.secret_fields, extra))
        return replace(login, user_name=name.strip(), secret=Secret(secret))
    if kind == "totp" and not len(login.code_key):
        address = _key_address(credential)
        if address:
            return replace(login, code_key=Secret(address))
    if kind == "note":
        notes = "\n\n".join(t for t in (login.notes, _value(credential, "content").strip()) if t)
        return replace(login, notes=notes)
    if kind == "custom-fields":
        for field in _list(credential, "fields"):
            login = _with_field(login, field)
        return login
    left.append(f"a credential of the kind “{kind[:40] or 'none'}”, kept aside")
    aside = Secret(json.dumps(credential, ensure_ascii=False))
    return replace(
        login, secret_fields=(*login.secret_fields, SecretField(ASIDE + (kind or "none"), aside))
    )


def _with_field(login: PortableLogin, field: object) -> PortableLogin:
    if not isinstance(field, Mapping):
        return login
    label = (_text(field, "label") or "field").strip()
    value = _text(field, "value")
    if _text(field, "fieldType") == _HIDDEN:
        more = SecretField(label, Secret(value))
        return replace(login, secret_fields=(*login.secret_fields, more))
    return replace(login, fields=(*login.fields, PlainField(label, value.strip())))


def _own(login: PortableLogin, extension: Mapping[str, Any]) -> PortableLogin:
    known = {one.value: one for one in Importance}
    day = _text(extension, "expires_on")
    given = _text(extension, "code_key")
    try:
        expires_on = datetime.fromisoformat(day).date() if day else None
    except ValueError:
        expires_on = None
    return replace(
        login,
        owner=_text(extension, "owner"),
        importance=known.get(_text(extension, "importance"), Importance.NORMAL),
        expires_on=expires_on,
        code_key=Secret(given) if given and not len(login.code_key) else login.code_key,
    )


def _totp(address: str) -> dict[str, Any] | None:
    """The credential of an `otpauth://totp/` address; None where it is none."""
    parts = urlsplit(address)
    if parts.scheme != "otpauth" or parts.netloc != "totp":
        return None
    given = {name: values[0] for name, values in parse_qs(parts.query).items()}
    issuer, _, name = unquote(parts.path).lstrip("/").rpartition(":")
    found = {
        "type": "totp",
        "secret": given.get("secret", ""),
        "period": int(given.get("period", "30")),
        "digits": int(given.get("digits", "6")),
        "username": name,
        "algorithm": given.get("algorithm", "SHA1").lower(),
        "issuer": given.get("issuer", issuer),
    }
    return {key: value for key, value in found.items() if value != ""}


def _key_address(credential: Mapping[str, Any]) -> str:
    secret = _text(credential, "secret").replace(" ", "").upper().rstrip("=")
    try:
        b32decode(secret + "=" * (-len(secret) % 8))
        period, digits = int(credential.get("period", 30)), int(credential.get("digits", 6))
    except (ValueError, TypeError):
        return ""
    issuer, name = _text(credential, "issuer"), _text(credential, "username")
    label = quote(f"{issuer}:{name}" if issuer else name, safe=":")
    values = {
        "secret": secret,
        "issuer": issuer,
        "algorithm": (_text(credential, "algorithm") or "sha1").upper(),
        "digits": str(digits),
        "period": str(period),
    }
    return f"otpauth://totp/{label}?" + urlencode({k: v for k, v in values.items() if v})


def _folders(account: object) -> dict[str, str]:
    """Item id -> the collection that it is in, nested ones as a path."""
    found: dict[str, str] = {}

    def enter(collections: Sequence[object], path: str) -> None:
        for one in collections:
            if isinstance(one, Mapping):
                title = f"{path}/{_text(one, 'title')}".strip("/")
                for link in _list(one, "items"):
                    if isinstance(link, Mapping):
                        found.setdefault(_text(link, "item"), title)
                enter(_list(one, "subCollections"), title)

    enter(_list(account, "collections"), "")
    return found


def _is_shallow(document: object) -> bool:
    level: list[object] = [document]
    for _ in range(DEPTH_MOST):
        below: list[object] = []
        for one in level:
            if isinstance(one, Mapping):
                below.extend(one.values())
            elif isinstance(one, list):
                below.extend(one)
        if not below:
            return True
        level = below
    return False


def _list(of: object, key: str) -> list[Any]:
    value = of.get(key) if isinstance(of, Mapping) else None
    return value if isinstance(value, list) else []


def _text(of: Mapping[str, Any], key: str) -> str:
    value = of.get(key)
    return value if isinstance(value, str) else ""


def _value(credential: Mapping[str, Any], key: str) -> str:
    field = credential.get(key)
    return _text(field, "value") if isinstance(field, Mapping) else ""


def _moment(value: object) -> datetime | None:
    if not isinstance(value, int) or not 0 <= value < 1 << 34:
        return None
    return datetime.fromtimestamp(value, UTC)
