"""Logins: lists and sheets without secrets; each secret by its own call."""

from dataclasses import asdict

from fastapi import APIRouter, Response

from newknot.api.deps import Work, WorkDep
from newknot.api.schemas.check.strength import MeasureOut
from newknot.api.schemas.drawing.draws import SecretOut
from newknot.api.schemas.logins.logins import (
    EarlierRow,
    Emptied,
    FieldRevealIn,
    FieldShape,
    LoginIn,
    LoginList,
    LoginRow,
    LoginSheet,
    OtherTextOut,
    RevealIn,
    SettleTextIn,
)
from newknot.api.shaping import RowMaker, new_secret_of
from newknot.core.login import LoginCard, PlainField
from newknot.core.safeguards import Act
from newknot.core.secret import Secret
from newknot.store.errors import RecordDamaged
from newknot.store.logins import get_card, get_history, get_secrets
from newknot.store.vault import Vault
from newknot.usecases.check.measuring import login_measure, own_budgets
from newknot.usecases.logins import logins as use
from newknot.usecases.logins.texts import delete_text, other_texts, settle_text
from newknot.usecases.revisions import revision_of, unless_changed

router = APIRouter(prefix="/logins", tags=["logins"])


@router.get("")
def list_logins(work: WorkDep) -> LoginList:
    """All logins outside the bin, by title."""
    cards, damaged = use.list_logins(work.vault)
    rows = RowMaker(work.vault, now=work.now)
    return LoginList(logins=[rows.row(card) for card in cards], damaged=damaged)


@router.post("", status_code=201)
def add_login(body: LoginIn, work: WorkDep) -> LoginSheet:
    """A new login."""
    new_secret = new_secret_of(body.secret, work)
    card = use.add_login(work.vault, _draft(body), new_secret, now=work.now)
    return _sheet(work, card)


@router.get("/bin")
def list_bin(work: WorkDep) -> list[LoginRow]:
    """Logins in the bin, newest first."""
    rows = RowMaker(work.vault, now=work.now)
    return [rows.row(card) for card in use.list_bin(work.vault)]


@router.delete("/bin")
def empty_bin(work: WorkDep) -> Emptied:
    """Deletes what is in the bin for good."""
    work.require(Act.DELETE)
    count = use.empty_bin(work.vault, now=work.now, only_expired=False)
    return Emptied(deleted_count=count)


@router.get("/{login_id}")
def login_sheet(login_id: str, work: WorkDep) -> LoginSheet:
    """Everything of a login but its secrets."""
    return _sheet(work, get_card(work.vault, login_id))


@router.put("/{login_id}")
def edit_login(login_id: str, body: LoginIn, work: WorkDep) -> LoginSheet:
    """The login as changed; a secret that is replaced goes to the history."""
    work.require(Act.EDIT)
    new_secret = new_secret_of(body.secret, work)
    with unless_changed(work.vault, lambda: revision_of(work.vault, login_id), body.revision):
        card = use.edit_login(work.vault, login_id, _draft(body), new_secret, now=work.now)
    return _sheet(work, card)


@router.delete("/{login_id}", status_code=204)
def delete_login(login_id: str, work: WorkDep) -> Response:
    """Puts a login into the bin."""
    work.require(Act.DELETE)
    use.delete_login(work.vault, login_id, now=work.now)
    return Response(status_code=204)


@router.post("/{login_id}/restore")
def restore_login(login_id: str, work: WorkDep) -> LoginSheet:
    """Takes a login out of the bin."""
    return _sheet(work, use.restore_login(work.vault, login_id))


@router.post("/{login_id}/secret")
def login_secret(login_id: str, body: RevealIn, work: WorkDep) -> SecretOut:
    """The current secret."""
    work.allow(body.purpose)
    found = use.reveal_secret(work.vault, login_id)
    work.given("secret", body.purpose, login_id)
    return _out(found)


@router.post("/{login_id}/measure")
def measure_login(login_id: str, work: WorkDep) -> MeasureOut:
    """What the current secret is made of and stands, by kinds and lengths: not the secret."""
    found = login_measure(work.vault, login_id, corpora=work.keeper.corpora)
    return MeasureOut.of(found.full, own_budgets(work.vault), site_keeps=found.site_keeps)


@router.post("/{login_id}/secret-field")
def login_secret_field(login_id: str, body: FieldRevealIn, work: WorkDep) -> SecretOut:
    """A further field marked secret."""
    work.allow(body.purpose)
    found = use.reveal_field(work.vault, login_id, body.name)
    work.given(f"“{body.name}”", body.purpose, login_id)
    return _out(found)


@router.post("/{login_id}/texts/{text_id}/settle")
def settle_login_text(login_id: str, text_id: str, body: SettleTextIn, work: WorkDep) -> LoginSheet:
    """Two copies differed in a text: the current one stands, or this one takes its place."""
    work.require(Act.EDIT)
    return _sheet(work, settle_text(work.vault, login_id, text_id, take=body.take, now=work.now))


@router.delete("/{login_id}/texts/{text_id}")
def delete_login_text(login_id: str, text_id: str, work: WorkDep) -> LoginSheet:
    """Lets a text of another copy go for good."""
    work.require(Act.DELETE)
    return _sheet(work, delete_text(work.vault, login_id, text_id))


def _out(secret: Secret) -> SecretOut:
    return SecretOut(secret=secret.reveal())


def _draft(body: LoginIn) -> use.LoginDraft:
    return use.LoginDraft(
        title=body.title,
        user_name=body.user_name,
        address=body.address,
        notes=body.notes,
        fields=tuple(PlainField(f.name, f.value) for f in body.fields),
        secret_fields=tuple(
            (f.name, None if f.value is None else Secret(f.value.get_secret_value()))
            for f in body.secret_fields
        ),
        folder=body.folder,
        owner=body.owner,
        tags=tuple(body.tags),
        importance=body.importance,
        expires_on=body.expires_on,
        resets_by=body.resets_by,
        second_factor=body.second_factor,
        driven=body.driven,
        driven_at=tuple(body.driven_at),
        code_key=None if body.code_key is None else Secret(body.code_key.get_secret_value()),
    )


def _sheet(work: Work, card: LoginCard) -> LoginSheet:
    """The login as it can be read: what has become of its history hides nothing else of it."""
    origin = get_secrets(work.vault, card.login_id).origin
    try:
        history, texts = _before(work.vault, card.login_id)
        is_damaged = False
    except RecordDamaged:
        history, texts, is_damaged = [], [], True
    return LoginSheet(
        **RowMaker(work.vault, now=work.now).values(card),
        notes=card.notes,
        fields=[FieldShape(name=f.name, value=f.value) for f in card.fields],
        secret_field_names=list(card.secret_field_names),
        resets_by=card.resets_by,
        driven_at=list(card.driven_at),
        created_at=card.created_at,
        changed_at=card.changed_at,
        made=origin.kind,
        entropy_bits=origin.entropy_bits,
        history=history,
        history_is_damaged=is_damaged,
        other_texts=texts,
        revision=revision_of(work.vault, card.login_id),
    )


def _before(vault: Vault, login_id: str) -> tuple[list[EarlierRow], list[OtherTextOut]]:
    """Earlier secrets, newest first, and other texts. Raises `RecordDamaged`."""
    earlier = [
        EarlierRow(
            earlier_id=e.earlier_id,
            since_at=e.since_at,
            until_at=e.until_at,
            used=e.used,
            parted=e.parted,
            field=e.field,
            made=e.origin.kind,
            entropy_bits=e.origin.entropy_bits,
        )
        for e in reversed(get_history(vault, login_id))
    ]
    others = other_texts(vault, login_id)
    return earlier, [OtherTextOut.model_validate(asdict(one)) for one in others]
