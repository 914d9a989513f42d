"""Logins: list, open, add, edit, reveal, delete to the bin, restore, empty the bin."""

from bisect import insort
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, timedelta
from functools import partial

from newknot.core.address import kept_address, site_of
from newknot.core.errors import FieldInvalid
from newknot.core.login import (
    BIN_DAYS,
    FIELDS_LIMIT,
    NOTES_LIMIT,
    ORIGINS_LIMIT,
    TAGS_LIMIT,
    BackupCode,
    Importance,
    LoginCard,
    LoginSecrets,
    Origin,
    PlainField,
    SecondFactor,
    SecretField,
    checked_secret_text,
    checked_text,
    renewed,
)
from newknot.core.second_factor import CodeKey
from newknot.core.secret import Secret
from newknot.store.errors import RecordMissing
from newknot.store.import_undo import forget_taken
from newknot.store.logins import (
    Cards,
    cards_written_since,
    get_card,
    get_secrets,
    list_cards,
    put_card,
    put_secrets,
    remove_login,
)
from newknot.store.loose_ends import remove_loose_end
from newknot.store.manifest import Label
from newknot.store.rotations import list_rotations, open_rotations, remove_rotation
from newknot.store.vault import Transaction, Vault, new_id
from newknot.usecases.errors import InBin, NothingHeld
from newknot.usecases.logins.superseding import (
    OWN,
    fields_superseded,
    settle_parted,
    superseded,
    with_code_key,
)

_NO_TIME = datetime.fromtimestamp(0, UTC)


@dataclass(frozen=True, slots=True)
class LoginDraft:
    """What a form gives for a login. secret_fields None keeps those there are, by name.

    code_key: the key of its codes, as a site gives it; None keeps the one there is.
    """

    title: str
    user_name: str = ""
    address: str = ""
    notes: str = ""
    fields: tuple[PlainField, ...] = ()
    secret_fields: tuple[tuple[str, Secret | None], ...] = ()
    folder: str = ""
    owner: str = ""
    tags: tuple[str, ...] = ()
    importance: Importance = Importance.NORMAL
    expires_on: date | None = None
    resets_by: str | None = None
    second_factor: SecondFactor = SecondFactor.NONE
    code_key: Secret | None = None
    driven: bool = False
    driven_at: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class LoginDates:
    """When a login that comes from elsewhere was made and changed, and its secret set."""

    created_at: datetime
    changed_at: datetime
    secret_since_at: datetime


@dataclass(frozen=True, slots=True)
class NewSecret:
    """A secret on its way into a login, and the loose end it was until now, if any."""

    secret: Secret
    origin: Origin
    loose_end_id: str | None = None


def add_login(
    vault: Vault,
    draft: LoginDraft,
    new_secret: NewSecret | None,
    *,
    dates: LoginDates | None = None,
    backup_codes: tuple[BackupCode, ...] = (),
    now: datetime,
) -> LoginCard:
    """A new login. Raises `FieldInvalid` naming the field."""
    login_id = new_id()
    at = dates or LoginDates(now, now, now)
    with vault.transaction() as tx:
        card = _card(
            vault,
            draft,
            login_id,
            created_at=at.created_at,
            changed_at=at.changed_at,
            secret_since_at=at.secret_since_at,
        )
        card = with_day(card, draft.expires_on, now)
        given = new_secret or NewSecret(Secret(""), OWN)
        _check_secret(given.secret)
        fields = _secret_fields(draft, ())
        card = replace(card, has_secret=len(given.secret) > 0)
        put_card(tx, card)
        code_key = _code_key(draft, Secret(""))
        secrets = LoginSecrets(
            given.secret,
            given.origin,
            fields,
            code_key,
            backup_codes,
            secret_id=new_id() if len(given.secret) else "",
            code_key_id=new_id() if len(code_key) else "",
        )
        put_secrets(tx, login_id, secrets)
        if given.loose_end_id is not None:
            remove_loose_end(tx, given.loose_end_id)
    return card


def check_draft(draft: LoginDraft, secret: Secret) -> None:
    """Raises `FieldInvalid`, naming the field, for what adding it would refuse; a login that it is
    reset by is not looked for.
    """
    _check_secret(secret)
    _code_key(draft, Secret(""))
    _secret_fields(draft, ())
    _checked(draft, "")


def edit_login(
    vault: Vault,
    login_id: str,
    draft: LoginDraft,
    new_secret: NewSecret | None,
    *,
    now: datetime,
) -> LoginCard:
    """The login as changed; a secret that is replaced goes to the history."""
    with vault.transaction() as tx:
        former = live_card(vault, login_id)
        held = get_secrets(vault, login_id)
        card = _card(
            vault,
            draft,
            login_id,
            created_at=former.created_at,
            changed_at=now,
            secret_since_at=former.secret_since_at,
        )
        code_key = _code_key(draft, held.code_key)
        secrets = with_code_key(tx, vault, login_id, held, code_key, former.changed_at, now)
        secrets = replace(secrets, fields=_secret_fields(draft, held.fields))
        since_at = former.changed_at
        fields_superseded(
            tx, vault, login_id, held.fields, secrets.fields, since_at=since_at, until_at=now
        )
        card = replace(
            card,
            has_secret=former.has_secret,
            parted_at=former.parted_at,
            texts_apart=former.texts_apart,
            expires_on=former.expires_on,
            expires_set_at=former.expires_set_at,
        )
        card = with_day(card, draft.expires_on, now)
        if new_secret is not None and new_secret.secret != held.secret:
            card, secrets = with_secret(tx, vault, card, secrets, new_secret, now)
        if new_secret is not None and new_secret.loose_end_id is not None:
            remove_loose_end(tx, new_secret.loose_end_id)
        put_card(tx, card)
        put_secrets(tx, login_id, secrets)
    return card


def with_day(card: LoginCard, expires_on: date | None, now: datetime) -> LoginCard:
    """The card with a day for its secret, set now where it is another."""
    if expires_on == card.expires_on:
        return card
    set_at = None if expires_on is None else now
    return replace(card, expires_on=expires_on, expires_set_at=set_at)


def with_secret(
    tx: Transaction,
    vault: Vault,
    card: LoginCard,
    held: LoginSecrets,
    new_secret: NewSecret,
    now: datetime,
) -> tuple[LoginCard, LoginSecrets]:
    """Card and secrets with a new secret; the one there was goes to the history."""
    _check_secret(new_secret.secret)
    superseded(
        tx,
        vault,
        card.login_id,
        held.secret,
        held.origin,
        secret_id=held.secret_id,
        since_at=card.secret_since_at,
        until_at=now,
    )
    settle_parted(tx, vault, card.login_id, now)
    has_secret = len(new_secret.secret) > 0
    secrets = replace(
        held,
        secret=new_secret.secret,
        origin=new_secret.origin,
        secret_id=new_id() if has_secret else "",
    )
    return renewed(card, now, has_secret=has_secret), secrets


def list_logins(vault: Vault) -> tuple[list[LoginCard], list[str]]:
    """Cards outside the bin by title, and the ids of damaged ones."""
    found: Cards = vault.renewed("live cards", (Label.LOGIN,), partial(_by_title, vault))
    return found.cards, found.damaged


def _by_title(vault: Vault, former: Cards | None) -> Cards:
    written = cards_written_since(vault, former)
    if former is None or written is None:
        cards, damaged = list_cards(vault)
        live = [card for card in cards if card.deleted_at is None]
        return Cards(sorted(live, key=_title_key), damaged, vault.counter)
    cards = [card for card in former.cards if card.login_id not in written]
    for card in written.values():
        if card is not None and card.deleted_at is None:
            insort(cards, card, key=_title_key)
    return Cards(cards, [], vault.counter)


def _title_key(card: LoginCard) -> tuple[str, str, str]:
    return card.title.casefold(), card.user_name, card.login_id


def live_card(vault: Vault, login_id: str) -> LoginCard:
    """A card outside the bin. Raises `RecordMissing`, `InBin`."""
    card = get_card(vault, login_id)
    if card.deleted_at is not None:
        raise InBin()
    return card


def reveal_secret(vault: Vault, login_id: str) -> Secret:
    """The current secret. Raises `NothingHeld` where there is none."""
    live_card(vault, login_id)
    secret = get_secrets(vault, login_id).secret
    if not len(secret):
        raise NothingHeld()
    return secret


def reveal_field(vault: Vault, login_id: str, name: str) -> Secret:
    """A further field marked secret. Raises `NothingHeld`."""
    live_card(vault, login_id)
    for field in get_secrets(vault, login_id).fields:
        if field.name == name:
            return field.value
    raise NothingHeld()


def delete_login(vault: Vault, login_id: str, *, now: datetime) -> None:
    """Puts a login into the bin, where it keeps for 30 days."""
    with vault.transaction() as tx:
        put_card(tx, replace(live_card(vault, login_id), deleted_at=now))


def list_bin(vault: Vault) -> list[LoginCard]:
    """Cards in the bin, newest first."""
    cards, _ = list_cards(vault)
    return sorted(
        (card for card in cards if card.deleted_at is not None),
        key=lambda card: (card.deleted_at or card.changed_at, card.login_id),
        reverse=True,
    )


def restore_login(vault: Vault, login_id: str) -> LoginCard:
    """Takes a login out of the bin, as it was."""
    with vault.transaction() as tx:
        card = replace(get_card(vault, login_id), deleted_at=None)
        put_card(tx, card)
    return card


def empty_bin(vault: Vault, *, now: datetime, only_expired: bool) -> int:
    """Deletes what is in the bin for good, with histories and rotations. Answers how many."""
    expired_at = now - timedelta(days=BIN_DAYS)
    gone = [
        card
        for card in list_bin(vault)
        if not only_expired or (card.deleted_at is not None and card.deleted_at <= expired_at)
    ]
    if not gone:
        return 0
    ids = {card.login_id for card in gone}
    with vault.transaction() as tx:
        forget_taken(tx, vault, ids)
        # Rotations first: what was staged before is known by the history of the login.
        for rotation in list_rotations(vault):
            if rotation.login_id in ids:
                remove_rotation(tx, rotation.rotation_id)
        for login_id in ids:
            remove_login(tx, login_id)
        for card in list_logins(vault)[0]:
            if card.resets_by in ids:
                put_card(tx, replace(card, resets_by=None))
    return len(gone)


def open_rotation_id(vault: Vault, login_id: str) -> str | None:
    """The rotation of this login that is under way, if any."""
    return open_rotations(vault).get(login_id)


def _code_key(draft: LoginDraft, held: Secret) -> Secret:
    """The key of the draft's codes. Raises `FieldInvalid` where it is none."""
    if not draft.second_factor.has_codes:
        return Secret("")
    if draft.code_key is None:
        if not len(held):
            raise FieldInvalid("code_key", "is missing")
        return held
    return Secret(CodeKey.read(draft.code_key.reveal()).address)


def _check_secret(secret: Secret) -> None:
    checked_secret_text(secret.reveal(), field="secret")


def _secret_fields(draft: LoginDraft, former: tuple[SecretField, ...]) -> tuple[SecretField, ...]:
    """The draft's secret fields; a value of None keeps the one there was under that name."""
    kept = {field.name: field for field in former}
    out: list[SecretField] = []
    for i, (name, value) in enumerate(draft.secret_fields):
        at = f"secret_fields.{i}"
        label = checked_text(name, field=f"{at}.name", needed=True)
        if value is None and label not in kept:
            raise FieldInvalid(f"{at}.value", "is missing")
        if label in kept and value in (None, kept[label].value):
            out.append(kept[label])
            continue
        text = value or Secret("")
        checked_secret_text(text.reveal(), field=f"{at}.value")
        out.append(SecretField(label, text, new_id()))
    return tuple(out)


def _card(
    vault: Vault,
    draft: LoginDraft,
    login_id: str,
    *,
    created_at: datetime,
    changed_at: datetime,
    secret_since_at: datetime,
) -> LoginCard:
    if draft.resets_by is not None:
        if draft.resets_by == login_id:
            raise FieldInvalid("resets_by", "is this login itself")
        try:
            get_card(vault, draft.resets_by)
        except RecordMissing:
            raise FieldInvalid("resets_by", "is no login") from None
    return replace(
        _checked(draft, login_id),
        created_at=created_at,
        changed_at=changed_at,
        secret_since_at=secret_since_at,
    )


def _origins(given: tuple[str, ...], address: str) -> tuple[str, ...]:
    """The origins of addresses of the login's own site. Raises `FieldInvalid` naming the line."""
    if len(given) > ORIGINS_LIMIT:
        raise FieldInvalid("driven_at", f"are more than {ORIGINS_LIMIT}")
    own, found = site_of(address), []
    for i, one in enumerate(given):
        field = f"driven_at.{i}"
        try:
            site = site_of(checked_text(one, field=field, needed=True))
        except FieldInvalid as error:
            raise FieldInvalid(field, str(error.data["reason"])) from None
        assert site is not None
        if own is None or site.domain != own.domain:
            raise FieldInvalid(field, "is not of the login's own site")
        if site.scheme != "https" and not site.is_loopback:
            raise FieldInvalid(field, "is not an https address")
        found.append(site.origin)
    return tuple(dict.fromkeys(found))


def _checked(draft: LoginDraft, login_id: str) -> LoginCard:
    """The card of a draft, at no time yet."""
    if len(draft.fields) + len(draft.secret_fields) > FIELDS_LIMIT:
        raise FieldInvalid("fields", f"are more than {FIELDS_LIMIT}")
    if len(draft.tags) > TAGS_LIMIT:
        raise FieldInvalid("tags", f"are more than {TAGS_LIMIT}")
    address = kept_address(checked_text(draft.address, field="address"))
    names = tuple(name.strip() for name, _ in draft.secret_fields)
    if len(set(names)) != len(names):
        raise FieldInvalid("secret_fields", "have a name twice")
    return LoginCard(
        login_id=login_id,
        title=checked_text(draft.title, field="title", needed=True),
        user_name=checked_text(draft.user_name, field="user_name"),
        address=address,
        notes=checked_text(draft.notes, field="notes", limit=NOTES_LIMIT),
        fields=tuple(
            PlainField(
                checked_text(f.name, field=f"fields.{i}.name", needed=True),
                checked_text(f.value, field=f"fields.{i}.value"),
            )
            for i, f in enumerate(draft.fields)
        ),
        secret_field_names=names,
        folder=checked_text(draft.folder, field="folder"),
        owner=checked_text(draft.owner, field="owner"),
        tags=tuple(
            dict.fromkeys(
                checked_text(tag, field=f"tags.{i}", needed=True)
                for i, tag in enumerate(draft.tags)
            )
        ),
        importance=draft.importance,
        expires_on=None,
        resets_by=draft.resets_by,
        created_at=_NO_TIME,
        changed_at=_NO_TIME,
        secret_since_at=_NO_TIME,
        has_secret=False,
        second_factor=draft.second_factor,
        driven=draft.driven,
        driven_at=_origins(draft.driven_at, address),
    )
