"""Logins as JSON of the FIDO Alliance's Credential Exchange Format 1.0: header, account, items,
collections. Basic logins, TOTP, notes and custom fields are placed; a credential of another kind is
kept aside, as JSON in a secret field, and given back.
"""

import json
from base64 import b32decode, urlsafe_b64encode
from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from datetime import date, datetime
from typing import Any
from urllib.parse import parse_qs, quote, unquote, urlencode, urlsplit

from pydantic import ValidationError

from newknot.core.errors import NewKnotError
from newknot.core.login import Importance, PlainField, SecretField
from newknot.core.secret import Secret
from newknot.exchange.cxf_models import (
    Account,
    BasicAuth,
    Collection,
    CustomFields,
    CxfDocument,
    EditableField,
    Item,
    Note,
    Own,
    Totp,
)
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
    if not isinstance(document, Mapping) or not isinstance(document.get("accounts"), list):
        raise CxfRefused(reason="has no accounts")
    try:
        accounts = CxfDocument.model_validate(document).accounts
    except ValidationError:
        reason = "is not of version 1 of the Credential Exchange Format"
        raise CxfRefused(reason=reason) from None
    if sum(len(account.items) for account in accounts) > ITEMS_MOST:
        raise CxfRefused(reason=f"has more than {ITEMS_MOST:,} items")
    found: list[ReadLogin] = []
    for account in accounts:
        folders = _folders(account)
        for item in account.items:
            found.append(_read_item(item, len(found) + 1, folders))
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


def _read_item(given: object, place: int, folders: Mapping[str, str]) -> ReadLogin:
    if not isinstance(given, dict):
        return ReadLogin(place, "is no item", PortableLogin(""))
    item = Item.model_validate(given)
    urls = item.scope.urls
    login = PortableLogin(
        title=item.title.strip() or (urls[0] if urls else ""),
        address=urls[0] if urls else "",
        folder=folders.get(item.id, ""),
        tags=tuple(tag.strip() for tag in item.tags if tag.strip()),
        fields=tuple(PlainField("further address", url) for url in urls[1:]),
        created_at=item.created_at,
        changed_at=item.modified_at,
    )
    left: list[str] = []
    for credential in item.credentials:
        login = _placed(login, credential, left)
    for extension in item.extensions:
        if extension.get("name") == OWN_EXTENSION:
            login = _own(login, Own.model_validate(extension))
    login = replace(login, secret_fields=with_names_apart(login.secret_fields))
    reason = "" if login.title else "has neither a title nor an address"
    return ReadLogin(place, reason, login, tuple(left))


def _placed(login: PortableLogin, credential: object, left: list[str]) -> PortableLogin:
    if not isinstance(credential, dict):
        left.append("a credential that is no object")
        return login
    given = credential.get("type")
    kind = given if isinstance(given, str) else ""
    if kind == "basic-auth":
        return _with_secret(login, BasicAuth.model_validate(credential))
    if kind == "totp" and not len(login.code_key):
        address = _key_address(credential)
        if address:
            return replace(login, code_key=Secret(address))
    if kind == "note":
        note = Note.model_validate(credential).content.value.strip()
        return replace(login, notes="\n\n".join(t for t in (login.notes, note) if t))
    if kind == "custom-fields":
        for field in CustomFields.model_validate(credential).fields:
            login = _with_field(login, field)
        return login
    left.append(f"a credential of the kind “{kind[:40] or 'none'}”, kept aside")
    aside = Secret(json.dumps(credential, ensure_ascii=False))
    return replace(
        login, secret_fields=(*login.secret_fields, SecretField(ASIDE + (kind or "none"), aside))
    )


def _with_secret(login: PortableLogin, found: BasicAuth) -> PortableLogin:
    name, secret = found.username.value, Secret(found.password.value)
    if len(login.secret) or (login.user_name and name != login.user_name):
        extra = SecretField(f"secret of {name or 'a further login'}", secret)
        return replace(login, secret_fields=(*login.secret_fields, extra))
    return replace(login, user_name=name.strip(), secret=secret)


def _with_field(login: PortableLogin, field: EditableField) -> PortableLogin:
    label = (field.label or "field").strip()
    if field.field_type == _HIDDEN:
        more = SecretField(label, Secret(field.value))
        return replace(login, secret_fields=(*login.secret_fields, more))
    return replace(login, fields=(*login.fields, PlainField(label, field.value.strip())))


def _own(login: PortableLogin, own: Own) -> PortableLogin:
    known = {one.value: one for one in Importance}
    try:
        expires_on = date.fromisoformat(own.expires_on) if own.expires_on else None
    except ValueError:
        expires_on = None
    given = own.code_key and not len(login.code_key)
    return replace(
        login,
        owner=own.owner,
        importance=known.get(own.importance, Importance.NORMAL),
        expires_on=expires_on,
        code_key=Secret(own.code_key) if given else login.code_key,
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
    """The `otpauth:` address of a credential; empty where it holds no key that can be used."""
    try:
        given = Totp.model_validate(credential)
        secret = given.secret.replace(" ", "").upper().rstrip("=")
        b32decode(secret + "=" * (-len(secret) % 8))
    except (ValidationError, ValueError):
        return ""
    label = f"{given.issuer}:{given.username}" if given.issuer else given.username
    values = {
        "secret": secret,
        "issuer": given.issuer,
        "algorithm": (given.algorithm or "sha1").upper(),
        "digits": str(given.digits),
        "period": str(given.period),
    }
    query = urlencode({k: v for k, v in values.items() if v})
    return f"otpauth://totp/{quote(label, safe=':')}?{query}"


def _folders(account: Account) -> dict[str, str]:
    """Item id -> the collection that it is in, nested ones as a path."""
    found: dict[str, str] = {}

    def enter(collections: Sequence[Collection], path: str) -> None:
        for one in collections:
            title = f"{path}/{one.title}".strip("/")
            for link in one.items:
                found.setdefault(link.item, title)
            enter(one.within, title)

    enter(account.collections, "")
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
