"""Create, unlock, lock, prove presence, and the state of the session."""

from datetime import timedelta
from typing import Literal

from fastapi import APIRouter, Request, Response
from starlette.concurrency import run_in_threadpool

from newknot.api.deps import KeeperDep, SessionDep, WorkDep, cookie_halves, cookie_name
from newknot.api.schemas.check.strength import (
    ChangePassphraseIn,
    JudgeIn,
    JudgementOut,
    PassphraseFacts,
)
from newknot.api.schemas.drawing.draws import PassphraseOut
from newknot.api.schemas.vault.vault import (
    ClockLeapOut,
    CopyBesideOut,
    CreateIn,
    LostPartOut,
    OpenSession,
    PassphraseIn,
    PlaceBesideIn,
    PlacedOut,
    ProofIn,
    ProofOut,
    SessionOut,
    SessionState,
    VaultState,
)
from newknot.core.generate import PassphraseShape, PassphraseSpace
from newknot.core.safeguards import Act
from newknot.store.vault_place import place_doubts
from newknot.usecases.check.measuring import own_budgets
from newknot.usecases.copies.backups import back_up_before
from newknot.usecases.vault import lost_parts, new_keys, way_back
from newknot.usecases.vault.keeper import Keeper
from newknot.usecases.vault.reading_through import said
from newknot.usecases.vault.safeguards import get_safeguards
from newknot.usecases.vault.sessions import SESSION_LIFE_S, Call, give_proof
from newknot.usecases.vault.vault_passphrase import get_passphrases, judge

router = APIRouter(prefix="/vault", tags=["vault"])


@router.get("")
def vault_state(keeper: KeeperDep) -> VaultState:
    """What the first screen is to be. Needs no session and says nothing of the content."""
    keeper.lock_if_idle()
    state: Literal["new", "locked", "unlocked"] = "locked" if keeper.exists else "new"
    is_new = state == "new"
    return VaultState(
        state="unlocked" if keeper.is_unlocked else state,
        path=str(keeper.path),
        knew_a_vault=is_new and way_back.knew_a_vault(keeper),
        copies=[
            CopyBesideOut(name=one.name, made_at=one.made_at)
            for one in (way_back.copies_beside(keeper) if is_new else ())
        ],
        is_placed=keeper.placed,
    )


@router.post("/place", status_code=201)
async def place_copy(request: Request, keeper: KeeperDep) -> PlacedOut:
    """Takes in a backup or a bundle, given as the raw body, where no vault's file is."""
    body = await request.body()
    kind = await run_in_threadpool(way_back.place_copy, keeper, body)
    return PlacedOut(kind="bundle" if kind == way_back.BUNDLE else "backup")


@router.post("/place-beside", status_code=201)
def place_beside(body: PlaceBesideIn, keeper: KeeperDep) -> PlacedOut:
    """Puts one of the copies that lie there in the vault's place."""
    way_back.place_beside(keeper, body.name)
    return PlacedOut(kind="backup")


@router.post("/open-bundle", status_code=201)
def open_bundle(
    body: PassphraseIn, request: Request, response: Response, keeper: KeeperDep
) -> SessionOut:
    """The bundle that was taken in, opened into a new vault under its passphrase."""
    halves = way_back.open_waiting_bundle(keeper, body.passphrase.get_secret_value())
    return begun(halves, request, response, keeper)


@router.get("/words")
def offered_words(keeper: KeeperDep, count: int = 6) -> PassphraseOut:
    """Words that could become a vault passphrase. Nothing of them is kept."""
    space = PassphraseSpace(PassphraseShape(words=count))
    drawn = space.draw(keeper.random)
    return PassphraseOut(words=list(drawn.words), entropy_bits=space.entropy_bits)


@router.post("/create", status_code=201)
def create_vault(
    body: CreateIn, request: Request, response: Response, keeper: KeeperDep
) -> SessionOut:
    """A new vault, unlocked."""
    halves = keeper.create(body.passphrase.get_secret_value(), drawn=body.drawn)
    return begun(halves, request, response, keeper)


@router.post("/unlock")
def unlock_vault(
    body: PassphraseIn, request: Request, response: Response, keeper: KeeperDep
) -> SessionOut:
    """A session for this tab, beside those of others; wrong passphrases are slowed."""
    cookies = cookie_halves(request)
    cookie = cookies[0] if len(cookies) == 1 else ""
    halves = keeper.unlock(body.passphrase.get_secret_value(), cookie)
    return begun(halves, request, response, keeper)


@router.post("/lock", status_code=204)
def lock_vault(session: SessionDep, keeper: KeeperDep, request: Request) -> Response:
    """Ends all sessions and lets the keys go."""
    keeper.lock()
    response = Response(status_code=204)
    response.delete_cookie(cookie_name(request.app.state.port), path="/api")
    return response


@router.get("/session")
def session_state(work: WorkDep) -> SessionState:
    """Time left, and what is to be said of the file. Does not extend the time."""
    safeguards = get_safeguards(work.vault)
    leap = work.keeper.clock_watch.leap
    return SessionState(
        seconds_left=work.keeper.seconds_left(),
        lock_after_s=safeguards.lock_after_s,
        clipboard_clear_s=safeguards.clipboard_clear_s,
        reveal_allowed=safeguards.reveal_allowed,
        is_older_copy=work.vault.is_older_copy,
        mended=[kind.says for kind in work.vault.mended],
        damaged=[
            *(said(work.vault, key, label) for key, label in work.vault.damaged),
            *work.keeper.reading.still_faulty(work.vault),
        ],
        read_count=work.keeper.reading.done,
        record_count=work.keeper.reading.total,
        clock_leap=ClockLeapOut(before=leap.before, after=leap.after) if leap else None,
        place_doubts=place_doubts(work.keeper.path),
    )


@router.get("/sessions")
def open_sessions(work: WorkDep) -> list[OpenSession]:
    """Every window in which the vault is open, the oldest first."""
    now_s = work.keeper.clock.boot_s()
    return [
        OpenSession(
            began_at=work.now - timedelta(seconds=now_s - one.began_s),
            ends_at=work.now + timedelta(seconds=SESSION_LIFE_S - (now_s - one.began_s)),
            is_this=one is work.session,
        )
        for one in work.keeper.sessions.open(now_s)
    ]


@router.post("/sessions/end-others", status_code=204)
def end_other_sessions(work: WorkDep) -> None:
    """All other windows have to unlock anew."""
    work.keeper.sessions.keep_only(work.session)


@router.post("/touch", status_code=204)
def touch(work: WorkDep) -> None:
    """A human act happened: the idle time begins anew."""
    work.keeper.touch(get_safeguards(work.vault).lock_after_s)


@router.post("/proof")
def prove_presence(body: ProofIn, session: SessionDep, keeper: KeeperDep) -> ProofOut:
    """The passphrase again, for one act on one record."""
    keeper.prove(body.passphrase.get_secret_value())
    call = Call(f"{body.method} {body.path}".strip(), body.body_sha256.lower())
    return ProofOut(proof=give_proof(session, keeper.clock.boot_s(), call))


@router.get("/passphrase")
def passphrase_facts(work: WorkDep) -> PassphraseFacts:
    """Looks through the vault once, so that judging while typing is quick."""
    work.keeper.likeness.look_through(work.vault)
    known = get_passphrases(work.vault)
    return PassphraseFacts(
        secrets_count=work.keeper.likeness.secrets_count,
        passphrases_count=len(known),
        since_at=known[-1].since_at if known else None,
    )


@router.post("/passphrase/judge")
def judge_passphrase(body: JudgeIn, work: WorkDep) -> JudgementOut:
    """The measure of a passphrase to be, and what forbids it."""
    judged = judge(
        body.passphrase.get_secret_value(),
        vault=work.vault,
        corpora=work.keeper.corpora,
        likeness=work.keeper.likeness,
        drawn=body.drawn,
    )
    return JudgementOut.of(judged, own_budgets(work.vault))


@router.put("/passphrase", status_code=204)
def change_passphrase(body: ChangePassphraseIn, session: SessionDep, keeper: KeeperDep) -> None:
    """The vault under a new passphrase, whole or not at all; the present one is asked first."""
    new_keys.change_passphrase(
        keeper,
        session,
        body.current.get_secret_value(),
        body.passphrase.get_secret_value(),
        drawn=body.drawn,
    )


@router.post("/new-key")
def new_key(
    body: ChangePassphraseIn,
    session: SessionDep,
    request: Request,
    response: Response,
    keeper: KeeperDep,
) -> SessionOut:
    """The vault sealed anew under a new key and passphrase; all other sessions end."""
    halves = new_keys.new_key(
        keeper,
        body.current.get_secret_value(),
        body.passphrase.get_secret_value(),
        drawn=body.drawn,
    )
    return begun(halves, request, response, keeper)


@router.post("/older-copy-accepted", status_code=204)
def accept_older_copy(work: WorkDep) -> None:
    """The user's answer that this older file is the one to go on with."""
    work.vault.accept_older_copy()


@router.post("/go-on-without-lost")
def go_on_without_lost(work: WorkDep) -> list[LostPartOut]:
    """Lets go of what cannot be read, after a backup of all as it is, and of nothing else."""
    work.require(Act.DELETE)
    back_up_before(work.vault, work.keeper.folder_of(work.vault), now=work.now)
    lost = lost_parts.go_on_without_lost(work.vault, now=work.now)
    work.keeper.checked.clear()
    return [LostPartOut(named=one.named, became=one.became) for one in lost]


def begun(
    halves: tuple[str, str], request: Request, response: Response, keeper: Keeper
) -> SessionOut:
    """The answer to an unlock: one half in a cookie, the other in the body."""
    cookie, token = halves
    response.set_cookie(
        cookie_name(request.app.state.port),
        cookie,
        path="/api",
        httponly=True,
        samesite="strict",
    )
    with keeper.at_work() as vault:
        return SessionOut(
            token=token,
            is_older_copy=vault.is_older_copy,
            damaged_count=len(vault.damaged),
        )
