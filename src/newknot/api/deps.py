"""What routes are given: the keeper, the session that both halves name, the vault for one call."""

from collections.abc import AsyncIterator
from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime
from hashlib import sha256
from typing import Annotated, Literal

from fastapi import Depends, Request

from newknot.core.errors import NewKnotError
from newknot.core.safeguards import Act
from newknot.store.accesses import Access, note_access
from newknot.store.vault import Vault
from newknot.usecases.errors import RevealSwitchedOff, SessionUnknown, VaultLocked
from newknot.usecases.vault.keeper import Keeper
from newknot.usecases.vault.safeguards import get_safeguards
from newknot.usecases.vault.sessions import Call, Session, require_proof

SESSION_HEADER = "knot-session"
PROOF_HEADER = "knot-proof"


# These run on the loop: they only compare and count, and a hop to a thread costs more than they.


def _keeper(request: Request) -> Keeper:
    keeper: Keeper = request.app.state.keeper
    return keeper


async def keeper_of(request: Request) -> Keeper:
    """The one keeper of the process."""
    return _keeper(request)


def cookie_name(port: int) -> str:
    """Cookies are not kept apart by port, so the name carries it."""
    return f"newknot_{port}"


async def session_of(request: Request) -> Session:
    """The session of a request. Raises `VaultLocked` first, then `SessionUnknown`."""
    keeper = _keeper(request)
    if not keeper.is_unlocked:
        raise VaultLocked()
    halves = cookie_halves(request)
    header = request.headers.get(SESSION_HEADER, "")
    if len(halves) != 1 or not header:
        raise SessionUnknown()
    return keeper.sessions.find(halves[0], header, keeper.clock.boot_s())


def cookie_halves(request: Request) -> list[str]:
    """What the request gives as the half of a session that lies in a cookie."""
    name = cookie_name(request.app.state.port)
    return [
        value
        for header in request.headers.getlist("cookie")
        for key, _, value in (part.strip().partition("=") for part in header.split(";"))
        if key == name
    ]


async def session_or_no_vault(request: Request) -> None:
    """For what the first start needs too: a session, unless there is no vault yet."""
    if _keeper(request).exists:
        await session_of(request)


_GIVEN = {"reveal": "shown", "copy": "copied"}


@dataclass(frozen=True, slots=True)
class Work:
    """One call on the unlocked vault."""

    keeper: Keeper
    vault: Vault
    session: Session
    now: datetime
    proof: str
    port: int
    call: Call
    """This request: the act and the records that a proof is for."""

    def allow(self, purpose: Literal["reveal", "copy"]) -> None:
        """Raises `RevealSwitchedOff` or `ProofNeeded` where a secret may not go out so."""
        if purpose == "reveal" and not get_safeguards(self.vault).reveal_allowed:
            raise RevealSwitchedOff()
        self.require(Act.REVEAL if purpose == "reveal" else Act.COPY)

    def given(self, what: str, purpose: str, login_id: str = "") -> None:
        """Notes that a secret went out; that it cannot be noted keeps nobody from it."""
        access = Access(self.now, f"{what} {_GIVEN.get(purpose, purpose)}", login_id)
        with suppress(NewKnotError), self.vault.transaction() as tx:
            note_access(tx, self.vault, access)

    def require(self, act: Act) -> None:
        """Raises `ProofNeeded` where the safeguards ask for one before this act."""
        require_proof(
            self.session,
            act,
            safeguards=get_safeguards(self.vault),
            token=self.proof,
            boot_s=self.keeper.clock.boot_s(),
            call=self.call,
        )


async def _call(request: Request, proof: str) -> Call:
    query = f"?{request.url.query}" if request.url.query else ""
    body = sha256(await request.body()).hexdigest() if proof else ""
    return Call(f"{request.method} {request.url.path}{query}", body)


async def work_of(request: Request) -> AsyncIterator[Work]:
    """The vault for the length of one call; a lock waits for its end."""
    session = await session_of(request)
    keeper = _keeper(request)
    with keeper.at_work() as vault:
        proof = request.headers.get(PROOF_HEADER, "")
        yield Work(
            keeper,
            vault,
            session,
            keeper.clock.now(),
            proof,
            request.app.state.port,
            await _call(request, proof),
        )


KeeperDep = Annotated[Keeper, Depends(keeper_of)]
SessionDep = Annotated[Session, Depends(session_of)]
WorkDep = Annotated[Work, Depends(work_of)]
