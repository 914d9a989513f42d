"""What happened in the vault."""

from fastapi import APIRouter

from newknot.api.deps import WorkDep
from newknot.api.schemas.events import EventOut
from newknot.store.logins import list_cards
from newknot.usecases import events as use

router = APIRouter(prefix="/events", tags=["history"])


@router.get("")
def list_events(work: WorkDep) -> list[EventOut]:
    """All events, newest first; never a secret."""
    titles = {card.login_id: card.title for card in list_cards(work.vault)[0]}
    return [
        EventOut(
            at=event.at,
            kind=event.kind,
            says=event.says,
            login_id=event.login_id,
            title=titles.get(event.login_id or ""),
        )
        for event in use.list_events(work.vault)
    ]
