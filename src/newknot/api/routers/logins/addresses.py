"""Any address: whose it is, and whether its place is kept out."""

from fastapi import APIRouter

from newknot.api.deps import WorkDep
from newknot.api.schemas.logins.addresses import (
    AddressIn,
    AddressSeenOut,
    KeepOutIn,
    KeptOut,
    ResemblingOut,
    SeenLogin,
)
from newknot.core.login import LoginCard
from newknot.usecases.logins import addresses as use

router = APIRouter(prefix="/addresses", tags=["logins"])


@router.post("")
def see_address(body: AddressIn, work: WorkDep) -> AddressSeenOut:
    """Which logins are of its site, else which sites it only resembles."""
    seen = use.see_address(work.vault, body.address)
    return AddressSeenOut(
        host=seen.host,
        domain=seen.domain,
        logins=[_seen(card) for card in seen.logins],
        resembles=[
            ResemblingOut(domain=one.domain, how=one.how, logins=[_seen(card) for card in cards])
            for one, cards in seen.resembles
        ],
        is_kept_out=seen.is_kept_out,
    )


@router.post("/kept-out")
def keep_out(body: KeepOutIn, work: WorkDep) -> KeptOut:
    """Keeps the place of an address out, or no longer."""
    domain = use.keep_out(work.vault, body.address, kept_out=body.kept_out)
    return KeptOut(domain=domain)


def _seen(card: LoginCard) -> SeenLogin:
    return SeenLogin(login_id=card.login_id, title=card.title, user_name=card.user_name)
