"""Texts that two copies of a vault changed apart: seen, settled, taken back, deleted."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import datetime
from hashlib import sha256

from newknot.core.login import LoginCard, PlainField
from newknot.core.merging.texts import APART, KEPT, LEFT, Entry, seen
from newknot.store.logins import get_texts, put_card, put_texts
from newknot.store.vault import Vault
from newknot.usecases.errors import NothingHeld
from newknot.usecases.logins.logins import live_card

_FIELD = "fields/"
_UNITS = ("title", "user_name", "address", "notes")


@dataclass(frozen=True, slots=True)
class OtherText:
    """A text that lost in a merge. is_apart: not settled."""

    text_id: str
    field: str
    text: str
    is_apart: bool


def other_texts(vault: Vault, login_id: str) -> Iterator[OtherText]:
    """Those of a login."""
    card = live_card(vault, login_id)
    for one, unit, text, state in _seen(card, get_texts(vault, login_id)):
        field = unit.removeprefix(_FIELD)
        yield OtherText(_short(one), field, text or "", state == APART)


def settle_text(
    vault: Vault, login_id: str, text_id: str, *, take: bool, now: datetime
) -> LoginCard:
    """What is current stands, or this text takes its place; the other stays to be reached. Raises
    `NothingHeld`.
    """
    with vault.transaction() as tx:
        card = live_card(vault, login_id)
        entry, *same = _entries(vault, card, text_id)
        changed = [[*one[:3], KEPT] for one in (entry, *same)]
        if take:
            was, card = _text(card, entry[1]), _with_text(card, entry[1], str(entry[2]))
            put_card(tx, replace(card, changed_at=now))
            # The note that a change leaves has no text: here it is kept as well.
            if was:
                changed.append([f"{entry[1]}:taken {entry[0]}", entry[1], was, KEPT])
        apart = tuple(put_texts(tx, login_id, changed))
        card = replace(live_card(vault, login_id), texts_apart=apart)
        put_card(tx, card)
    return card


def delete_text(vault: Vault, login_id: str, text_id: str) -> LoginCard:
    """Lets a text go for good. Raises `NothingHeld`."""
    with vault.transaction() as tx:
        entries = _entries(vault, live_card(vault, login_id), text_id)
        apart = tuple(put_texts(tx, login_id, [[*one[:2], None, LEFT] for one in entries]))
        card = replace(live_card(vault, login_id), texts_apart=apart)
        put_card(tx, card)
    return card


def _entries(vault: Vault, card: LoginCard, text_id: str) -> list[Entry]:
    """That of this id, and those of the same text that stand apart unseen beside it."""
    every = get_texts(vault, card.login_id)
    for entry in _seen(card, every):
        if _short(entry[0]) == text_id:
            same = [e for e in every if e[1:] == entry[1:] and e[0] != entry[0] and e[3] == APART]
            return [entry, *same]
    raise NothingHeld()


def _seen(card: LoginCard, entries: list[Entry]) -> Iterator[Entry]:
    return seen(
        entries,
        {unit: getattr(card, unit) for unit in _UNITS}
        | {"fields": [[one.name, one.value] for one in card.fields]},
    )


def _short(one: str) -> str:
    return sha256(one.encode()).hexdigest()[:16]


def _text(card: LoginCard, unit: str) -> str:
    if unit.startswith(_FIELD):
        name = unit.removeprefix(_FIELD)
        return next((one.value for one in card.fields if one.name == name), "")
    return str(getattr(card, unit))


def _with_text(card: LoginCard, unit: str, text: str) -> LoginCard:
    match unit:
        case "title":
            return replace(card, title=text)
        case "user_name":
            return replace(card, user_name=text)
        case "address":
            return replace(card, address=text)
        case "notes":
            return replace(card, notes=text)
    name = unit.removeprefix(_FIELD)
    if any(one.name == name for one in card.fields):
        fields = [PlainField(name, text) if one.name == name else one for one in card.fields]
        return replace(card, fields=tuple(fields))
    return replace(card, fields=(*card.fields, PlainField(name, text)))
