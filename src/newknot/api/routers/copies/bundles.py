"""The sealed bundle: everything out under a passphrase of its own, another copy merged in."""

import secrets

from fastapi import APIRouter, Request, Response
from starlette.concurrency import run_in_threadpool

from newknot.api.deps import Work, WorkDep
from newknot.api.schemas.copies.bundles import (
    ApartOut,
    BundleFacts,
    BundleHeld,
    BundleKeyOut,
    BundleOpenIn,
    BundleOut,
    MergeIn,
    MergeLineOut,
)
from newknot.core.safeguards import Act
from newknot.exchange.bundle import BundleContent
from newknot.usecases.copies import bundles as use
from newknot.usecases.copies.backups import back_up_before
from newknot.usecases.errors import ImportUnknown

router = APIRouter(prefix="/bundles", tags=["copies"])
FILES_KEPT = 2


@router.post("/take-out")
def take_out(body: BundleOut, work: WorkDep) -> Response:
    """The vault as one sealed file."""
    work.require(Act.EXPORT)
    if body.recipient is not None:
        file = use.take_out_for(work.vault, recipient=body.recipient, now=work.now)
        work.given("the vault", "taken out as a bundle for another vault")
        return Response(file, media_type="application/jose")
    file = use.take_out(
        work.vault,
        passphrase=body.passphrase.get_secret_value(),
        drawn=body.drawn,
        parameters=work.keeper.parameters,
        corpora=work.keeper.corpora,
        now=work.now,
    )
    work.given("the vault", "taken out as a sealed bundle")
    return Response(file, media_type="application/jose")


@router.post("/key")
def public_key(work: WorkDep) -> BundleKeyOut:
    """The public key of this vault, to seal bundles for it alone."""
    return BundleKeyOut(public_key=use.public_key(work.vault))


@router.post("", status_code=201)
async def hold_file(request: Request, work: WorkDep) -> BundleHeld:
    """Holds a bundle given as the raw body, still sealed, until it is opened or let go."""
    files = work.keeper.bundles
    for old in list(files)[: max(0, len(files) - FILES_KEPT + 1)]:
        files.pop(old, None)
    bundle_id = secrets.token_hex(16)
    file = await request.body()
    for_a_key = use.is_for_a_key(file)
    files[bundle_id] = file
    return BundleHeld(bundle_id=bundle_id, for_a_key=for_a_key)


@router.post("/{bundle_id}/open")
async def open_bundle(bundle_id: str, body: BundleOpenIn, work: WorkDep) -> BundleFacts:
    """What merging it would change here; nothing is changed yet."""
    held = _held(work, bundle_id)
    if isinstance(held, bytes):
        passphrase = body.passphrase.get_secret_value()
        held = await run_in_threadpool(use.open_file, work.vault, held, passphrase=passphrase)
        work.keeper.bundles[bundle_id] = held
    lines = await run_in_threadpool(use.preview_merge, work.vault, held)
    return BundleFacts(
        made_at=held.made_at,
        is_own=held.vault_id == work.vault.vault_id.hex(),
        lines=_shaped(lines),
    )


@router.post("/{bundle_id}/merge")
def merge(bundle_id: str, body: MergeIn, work: WorkDep) -> list[MergeLineOut]:
    """Merges it, in one step or not at all, and lets it go from memory."""
    work.require(Act.EDIT)
    held = _held(work, bundle_id)
    if isinstance(held, bytes):
        raise ImportUnknown()
    back_up_before(work.vault, work.keeper.folder_of(work.vault), now=work.now)
    with work.keeper.progress.of_one_act() as step:
        lines = use.merge_in(
            work.vault,
            held,
            take_out_of_bin=frozenset(body.take_out_of_bin),
            progress=step,
            now=work.now,
        )
    work.keeper.bundles.pop(bundle_id, None)
    work.keeper.checked.clear()
    return _shaped(lines)


@router.delete("/{bundle_id}", status_code=204)
def forget(bundle_id: str, work: WorkDep) -> Response:
    """Lets a bundle go from memory."""
    work.keeper.bundles.pop(bundle_id, None)
    return Response(status_code=204)


def _held(work: Work, bundle_id: str) -> bytes | BundleContent:
    try:
        return work.keeper.bundles[bundle_id]
    except KeyError:
        raise ImportUnknown() from None


def _shaped(lines: list[use.MergeLine]) -> list[MergeLineOut]:
    return [
        MergeLineOut(
            login_id=one.login_id,
            title=one.title,
            user_name=one.user_name,
            what=one.what,
            kind=one.label.lower(),
            texts=[
                ApartOut(field=name, taken=taken, kept=kept, why=why)
                for name, taken, kept, why in one.texts
            ],
            secret_taken=one.secret_taken,
            in_bin=one.in_bin,
        )
        for one in lines
    ]
