"""Logins as JSON of the FIDO Alliance's Credential Exchange Format 1.0: header, account, items,
collections. Basic logins, TOTP, notes and custom fields are placed; a credential of another kind,
and what is not known of one that is, is kept aside, as JSON in a secret field, and given back.
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
from newknot.core.login import (
    BACKUP_CODES_FIELD,
    BackupCode,
    Importance,
    PlainField,
    SecondFactor,
    SecretField,
)
from newknot.core.secret import Secret
from newknot.exchange.cxf_aside import REST, put_back, rest_of
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
from newknot.exchange.portable_login import (
    FURTHER_ADDRESS,
    PortableLogin,
    ReadLogin,
    with_names_apart,
)

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
    """One account with all logins, a collection for each folder. new_id gives ids of 16 bytes.

    Raises `CxfRefused` where what is written could not be read here.
    """
    if len(logins) > ITEMS_MOST:
        raise CxfRefused(reason=f"would have more than {ITEMS_MOST:,} items")

    def fresh() -> str:
        return urlsafe_b64encode(new_id()).decode().rstrip("=")

    items: list[dict[str, Any]] = []
    folders: dict[str, list[dict[str, str]]] = {}
    for one in logins:
        item_id = fresh()
        items.append(_item(one, item_id, now))
        for folder in filter(None, (one.folder, *one.collections)):
            folders.setdefault(folder, []).append({"item": item_id})
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
    body = json.dumps(document, ensure_ascii=False, indent=1).encode("utf-8")
    if len(body) > SIZE_MOST:
        raise CxfRefused(reason=f"would be larger than {SIZE_MOST >> 20} MiB")
    return body


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
            place = len(found) + 1
            try:
                found.append(_read_item(item, place, folders))
            except (ValidationError, ValueError):
                found.append(ReadLogin(place, "is not understood", PortableLogin("")))
    return found


def _item(one: PortableLogin, item_id: str, now: datetime) -> dict[str, Any]:
    credentials: list[dict[str, Any]] = [
        {
            "type": "basic-auth",
            "username": {"fieldType": _PLAIN, "value": one.user_name},
            "password": {"fieldType": _HIDDEN, "value": one.secret.reveal()},
        }
    ]
    own = _own_extension(one)
    totp = _totp(one.code_key.reveal())
    if totp is not None:
        credentials.append(totp)
    elif len(one.code_key):
        own["code_key"] = one.code_key.reveal()
    if one.notes:
        credentials.append({"type": "note", "content": {"fieldType": _PLAIN, "value": one.notes}})
    fields = [
        *(
            {"fieldType": _PLAIN, "label": f.name, "value": f.value}
            for f in one.fields
            if f.name != FURTHER_ADDRESS
        ),
        *(
            {"fieldType": _HIDDEN, "label": f.name, "value": f.value.reveal()}
            for f in one.secret_fields
            if not f.name.startswith(ASIDE)
        ),
    ]
    unused = [c.code.reveal() for c in one.backup_codes if c.used_at is None]
    if unused:
        text = "\n".join(unused)
        fields.append({"fieldType": _HIDDEN, "label": BACKUP_CODES_FIELD, "value": text})
    if fields:
        credentials.append({"type": "custom-fields", "fields": fields})
    aside: dict[str, Any] = {}
    for field in one.secret_fields:
        if field.name.startswith(ASIDE + REST):
            aside = _object_of(field)
        elif field.name.startswith(ASIDE):
            credentials.append(_object_of(field))
    urls = [one.address, *(f.value for f in one.fields if f.name == FURTHER_ADDRESS)]
    item = {
        "id": item_id,
        "creationAt": int((one.created_at or now).timestamp()),
        "modifiedAt": int((one.changed_at or now).timestamp()),
        "title": one.title,
        "scope": {"urls": [url for url in urls if url], "androidApps": []},
        "tags": list(one.tags),
        "credentials": credentials,
        "extensions": [{"name": OWN_EXTENSION, **own}],
    }
    return put_back(item, aside)


def _own_extension(one: PortableLogin) -> dict[str, Any]:
    """What the format has no place for."""
    moments = {
        "created_at": one.created_at,
        "changed_at": one.changed_at,
        "secret_since_at": one.secret_since_at,
    }
    codes = [
        [c.code.reveal(), c.used_at.isoformat() if c.used_at is not None else ""]
        for c in one.backup_codes
    ]
    own: dict[str, Any] = {
        "owner": one.owner,
        "importance": one.importance.value,
        "expires_on": one.expires_on.isoformat() if one.expires_on is not None else "",
        "second_factor": one.second_factor.value if one.second_factor is not None else "",
        "driven": one.driven,
        "backup_codes": codes,
        **{name: at.isoformat() for name, at in moments.items() if at is not None},
    }
    said = {name: value for name, value in own.items() if value not in ("", [], False)}
    # Said even where it is none: of the collections it may not be the first.
    return {"folder": one.folder, **said}


def _object_of(field: SecretField) -> dict[str, Any]:
    """The JSON object that was kept aside in a field; as a text where its user changed it."""
    try:
        found = json.loads(field.value.reveal())
    except ValueError:
        found = None
    if isinstance(found, dict):
        return found
    text = {"fieldType": _HIDDEN, "label": field.name, "value": field.value.reveal()}
    return {"type": "custom-fields", "fields": [text]}


def _read_item(given: object, place: int, folders: Mapping[str, list[str]]) -> ReadLogin:
    if not isinstance(given, dict):
        return ReadLogin(place, "is no item", PortableLogin(""))
    item = Item.model_validate(given)
    urls = item.scope.urls
    login = PortableLogin(
        title=item.title.strip() or (urls[0] if urls else ""),
        address=urls[0] if urls else "",
        folder=next(iter(folders.get(item.id, ())), ""),
        collections=tuple(folders.get(item.id, ())[1:]),
        tags=tuple(tag.strip() for tag in item.tags if tag.strip()),
        fields=tuple(PlainField(FURTHER_ADDRESS, url) for url in urls[1:]),
        created_at=item.created_at,
        changed_at=item.modified_at,
        # When its secret was set is not said: no later than the item's last change.
        secret_since_at=item.modified_at or item.created_at,
    )
    left: list[str] = []
    for credential in item.credentials:
        login = _placed(login, credential, left)
    for extension in item.extensions:
        if extension.get("name") == OWN_EXTENSION:
            login = _own(login, Own.model_validate(extension))
    rest = rest_of(given, own=OWN_EXTENSION)
    if rest:
        aside = SecretField(ASIDE + REST, Secret(json.dumps(rest, ensure_ascii=False)))
        login = replace(login, secret_fields=(*login.secret_fields, aside))
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
    factors = {one.value: one for one in SecondFactor}
    try:
        expires_on = date.fromisoformat(own.expires_on) if own.expires_on else None
    except ValueError:
        expires_on = None
    given = own.code_key and not len(login.code_key)
    codes = tuple(
        BackupCode(Secret(code), _moment(used))
        for code, used, *_ in (one for one in own.backup_codes if len(one) > 1)
    )
    if own.folder is not None:
        paths = (one for one in (login.folder, *login.collections) if one and one != own.folder)
        login = replace(login, folder=own.folder, collections=tuple(paths))
    # Those of the list are in a field as well, for other programs.
    kept = (f for f in login.secret_fields if not codes or f.name != BACKUP_CODES_FIELD)
    return replace(
        login,
        owner=own.owner,
        importance=known.get(own.importance, Importance.NORMAL),
        expires_on=expires_on,
        code_key=Secret(own.code_key) if given else login.code_key,
        second_factor=factors.get(own.second_factor),
        driven=own.driven,
        backup_codes=codes,
        secret_fields=tuple(kept),
        created_at=_moment(own.created_at) or login.created_at,
        changed_at=_moment(own.changed_at) or login.changed_at,
        secret_since_at=_moment(own.secret_since_at) or login.secret_since_at,
    )


def _moment(text: str) -> datetime | None:
    try:
        found = datetime.fromisoformat(text)
    except ValueError:
        return None
    return found if found.tzinfo is not None else None


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


def _folders(account: Account) -> dict[str, list[str]]:
    """Item id -> the collections that it is in, nested ones as a path."""
    found: dict[str, list[str]] = {}

    def enter(collections: Sequence[Collection], path: str) -> None:
        for one in collections:
            title = f"{path}/{one.title}".strip("/")
            for link in one.items:
                paths = found.setdefault(link.item, [])
                if title and title not in paths:
                    paths.append(title)
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
