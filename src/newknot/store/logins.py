"""Logins as sealed records: card, secrets and history apart, so that lists open cards alone."""

from bisect import bisect_left
from collections.abc import Iterator, Sequence
from dataclasses import replace
from datetime import datetime
from functools import partial
from operator import attrgetter
from typing import Any, NamedTuple

from newknot.core.login import (
    CODE_KEY_FIELD,
    BackupCode,
    EarlierSecret,
    Importance,
    LoginCard,
    LoginSecrets,
    Origin,
    PlainField,
    SecondFactor,
    SecretField,
    unnamed_secret_id,
)
from newknot.core.merging.merge import PARTED
from newknot.core.merging.stamps import unstamped
from newknot.core.merging.texts import Entry, apart, entries_of, left_behind
from newknot.core.secret import Secret
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.manifest import Label
from newknot.store.record_json import day, iso, moment, packed, unpacked
from newknot.store.vault import CARD, HISTORY, SECRETS, Transaction, Vault


def put_card(tx: Transaction, card: LoginCard) -> None:
    """Writes the card, and notes what it leaves behind of the texts there were."""
    document: dict[str, Any] = {
        "title": card.title,
        "user_name": card.user_name,
        "address": card.address,
        "notes": card.notes,
        "fields": [[f.name, f.value] for f in card.fields],
        "secret_field_names": list(card.secret_field_names),
        "folder": card.folder,
        "owner": card.owner,
        "tags": list(card.tags),
        "importance": card.importance.value,
        "expires_on": iso(card.expires_on),
        "resets_by": card.resets_by,
        "created_at": iso(card.created_at),
        "changed_at": iso(card.changed_at),
        "secret_since_at": iso(card.secret_since_at),
        "has_secret": card.has_secret,
        "deleted_at": iso(card.deleted_at),
        "second_factor": card.second_factor.value,
        "driven": card.driven,
        "driven_at": list(card.driven_at),
        "parted_at": iso(card.parted_at),
        "texts_apart": list(card.texts_apart),
    }
    if card.expires_set_at is not None:
        document["expires_set_at"] = iso(card.expires_set_at)
    texts = _left_behind(tx, card.login_id, document)
    if texts is not None:
        document["texts_apart"] = apart(texts, document)
        card = replace(card, texts_apart=tuple(document["texts_apart"]))
        _put_texts(tx, card.login_id, texts)
    tx.put(Label.LOGIN, card.login_id, packed(document), decoded=card)


def _left_behind(tx: Transaction, login_id: str, fresh: dict[str, Any]) -> list[Entry] | None:
    before = tx.document(Label.LOGIN, login_id, CARD)
    if before is None:
        return None
    entries = entries_of(tx.document(Label.LOGIN, login_id, HISTORY))
    return left_behind(before, fresh, entries)


def _put_texts(tx: Transaction, login_id: str, texts: list[Entry]) -> None:
    history = unstamped(tx.document(Label.LOGIN, login_id, HISTORY)) or {"earlier": []}
    tx.put(Label.LOGIN, login_id, packed({**history, "texts": texts}), part=HISTORY)


def get_texts(vault: Vault, login_id: str) -> list[Entry]:
    """What is known of texts that lost in a merge, settled or not."""
    try:
        return entries_of(unpacked(vault.get(Label.LOGIN, login_id, HISTORY)))
    except RecordMissing:
        return []


def put_texts(tx: Transaction, login_id: str, changed: list[Entry]) -> list[str]:
    """Writes these in place of those under their ids; which texts are apart then."""
    known = entries_of(tx.document(Label.LOGIN, login_id, HISTORY))
    texts = list({entry[0]: entry for entry in (*known, *changed)}.values())
    _put_texts(tx, login_id, sorted(texts, key=lambda entry: str(entry[0])))
    return apart(texts, tx.document(Label.LOGIN, login_id, CARD) or {})


def get_card(vault: Vault, login_id: str) -> LoginCard:
    """One card. Raises `RecordMissing`, `RecordDamaged`."""
    return vault.decoded(Label.LOGIN, login_id, CARD, partial(_card_of, login_id))


_IMPORTANCES = {one.value: one for one in Importance}
_SECOND_FACTORS = {one.value: one for one in SecondFactor}


def _card_of(login_id: str, text: bytes) -> LoginCard:
    d = unpacked(text)
    return LoginCard(
        login_id=login_id,
        title=d["title"],
        user_name=d["user_name"],
        address=d["address"],
        notes=d["notes"],
        fields=tuple([PlainField(*pair) for pair in d["fields"]]),
        secret_field_names=tuple(d["secret_field_names"]),
        folder=d["folder"],
        owner=d["owner"],
        tags=tuple(d["tags"]),
        importance=_IMPORTANCES[d["importance"]],
        expires_on=day(d["expires_on"]),
        resets_by=d["resets_by"],
        created_at=datetime.fromisoformat(d["created_at"]),
        changed_at=datetime.fromisoformat(d["changed_at"]),
        secret_since_at=datetime.fromisoformat(d["secret_since_at"]),
        has_secret=d["has_secret"],
        deleted_at=moment(d["deleted_at"]),
        second_factor=_SECOND_FACTORS[d.get("second_factor", "none")],
        driven=d.get("driven", False),
        driven_at=tuple(d.get("driven_at", ())),
        parted_at=moment(d.get("parted_at")),
        texts_apart=tuple(d.get("texts_apart", ())),
        expires_set_at=moment(d.get("expires_set_at")),
    )


FEW = 100
"""So many changed cards are put into their places in a list; for more it is made anew."""


class Cards(NamedTuple):
    """Cards in some order, the ids of damaged ones, and the change counter that they are of."""

    cards: list[LoginCard]
    damaged: list[str]
    at: int


def list_cards(vault: Vault) -> tuple[list[LoginCard], list[str]]:
    """All readable cards, those in the bin included, and the ids of damaged ones."""
    found: Cards = vault.renewed("all cards", (Label.LOGIN,), partial(_all_cards, vault))
    return found.cards, found.damaged


def _all_cards(vault: Vault, former: Cards | None) -> Cards:
    written = cards_written_since(vault, former)
    if former is None or written is None:
        return Cards(*vault.decoded_all(Label.LOGIN, CARD, _card_of), vault.counter)
    cards = list(former.cards)
    for login_id, card in written.items():
        place = bisect_left(cards, login_id, key=attrgetter("login_id"))
        is_there = place < len(cards) and cards[place].login_id == login_id
        cards[place : place + is_there] = [] if card is None else [card]
    return Cards(cards, [], vault.counter)


def cards_written_since(vault: Vault, former: Cards | None) -> dict[str, LoginCard | None] | None:
    """The few cards that were written since, as they are now, by login; None of one that is gone.
    None where there is nothing former, too many were written, or any cannot be read.
    """
    if former is None or former.damaged:
        return None
    written = vault.written_since((Label.LOGIN,), former.at)
    if written is None or len(written) > FEW:
        return None
    found: dict[str, LoginCard | None] = {}
    for login_id in written:
        try:
            found[login_id] = get_card(vault, login_id)
        except RecordMissing:
            found[login_id] = None
        except RecordDamaged:
            return None
    return found


def put_secrets(tx: Transaction, login_id: str, secrets: LoginSecrets) -> None:
    """Writes the secret part."""
    document = {
        "secret": secrets.secret.reveal(),
        "origin": origin_document(secrets.origin),
        "secret_id": secrets.secret_id,
        "fields": [[f.name, f.value.reveal(), f.secret_id] for f in secrets.fields],
        "code_key": secrets.code_key.reveal(),
        "code_key_id": secrets.code_key_id,
        "backup_codes": [[c.code.reveal(), iso(c.used_at)] for c in secrets.backup_codes],
    }
    tx.put(Label.LOGIN, login_id, packed(document), part=SECRETS)


def get_secrets(vault: Vault, login_id: str) -> LoginSecrets:
    """The secret part. Raises `RecordMissing`, `RecordDamaged`."""
    return _secrets_of(login_id, vault.get(Label.LOGIN, login_id, SECRETS))


def list_secrets(
    vault: Vault, login_ids: Sequence[str]
) -> Iterator[tuple[str, LoginSecrets | None]]:
    """The secret part of each of these logins; None of those that cannot be read."""
    for login_id, text in vault.texts(Label.LOGIN, SECRETS, login_ids):
        yield login_id, None if text is None else _secrets_of(login_id, text)


def _secrets_of(login_id: str, text: bytes) -> LoginSecrets:
    d = unpacked(text)
    fields = tuple(
        SecretField(name, Secret(value), _id_of(login_id, name, value, *secret_id))
        for name, value, *secret_id in d["fields"]
    )
    code_key = d.get("code_key", "")
    backup_codes = tuple(
        BackupCode(Secret(code), moment(used_at)) for code, used_at in d.get("backup_codes", ())
    )
    return LoginSecrets(
        Secret(d["secret"]),
        origin_of(d["origin"]),
        fields,
        Secret(code_key),
        backup_codes,
        secret_id=_id_of(login_id, "", d["secret"], d.get("secret_id", "")),
        code_key_id=_id_of(login_id, CODE_KEY_FIELD, code_key, d.get("code_key_id", "")),
    )


def _id_of(login_id: str, name: str, text: str, secret_id: str = "") -> str:
    return secret_id or (unnamed_secret_id(login_id, name, text) if text else "")


def put_history(tx: Transaction, login_id: str, history: tuple[EarlierSecret, ...]) -> None:
    """Writes all earlier secrets, oldest first, as a merge would order them."""
    entries = [
        [
            e.earlier_id,
            e.secret.reveal(),
            origin_document(e.origin),
            iso(e.since_at),
            iso(e.until_at),
            e.used,
            e.field,
            *_more(e),
        ]
        for e in sorted(history, key=lambda e: e.place)
    ]
    texts = entries_of(tx.document(Label.LOGIN, login_id, HISTORY))
    document = {"earlier": entries, **({"texts": texts} if texts else {})}
    tx.put(Label.LOGIN, login_id, packed(document), part=HISTORY)


def _more(e: EarlierSecret) -> list[str]:
    if e.placed_at is not None:
        return [PARTED if e.parted else "", e.placed_at.isoformat()]
    return [PARTED] if e.parted else []


def get_history(vault: Vault, login_id: str) -> tuple[EarlierSecret, ...]:
    """All earlier secrets, oldest first; none where the login never had one. What a merge put there
    and is current as well is not among them.
    """
    try:
        d = unpacked(vault.get(Label.LOGIN, login_id, HISTORY))
    except RecordMissing:
        return ()
    history = tuple(
        EarlierSecret(
            earlier_id,
            Secret(text),
            origin_of(origin),
            datetime.fromisoformat(since),
            datetime.fromisoformat(until),
            used,
            field,
            parted=bool(more and more[0]),
            placed_at=moment(more[1]) if len(more) > 1 else None,
        )
        for earlier_id, text, origin, since, until, used, field, *more in d["earlier"]
    )
    if not any(earlier.parted for earlier in history):
        return history
    held = get_secrets(vault, login_id)
    current = {("", held.secret.reveal()), (CODE_KEY_FIELD, held.code_key.reveal())}
    current |= {(field.name, field.value.reveal()) for field in held.fields}
    return tuple(e for e in history if not e.parted or (e.field, e.secret.reveal()) not in current)


def remove_login(tx: Transaction, login_id: str) -> None:
    """Deletes the login with its secrets and history. Raises `RecordMissing`."""
    tx.remove(Label.LOGIN, login_id)


def origin_document(origin: Origin) -> dict[str, Any]:
    """The JSON form of an origin."""
    return {"kind": origin.kind, "entropy_bits": origin.entropy_bits}


def origin_of(document: dict[str, Any]) -> Origin:
    """The origin of its JSON form."""
    return Origin(document["kind"], document["entropy_bits"])
