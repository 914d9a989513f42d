"""Campaigns: planned, gone on with whenever one likes, driven side by side where switched on."""

from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum

from newknot.core.audit.mailboxes import resets
from newknot.core.errors import FieldInvalid, NewKnotError
from newknot.core.generate import RandomSource
from newknot.core.login import LoginCard
from newknot.core.rotation.campaign import Campaign, order_of_work
from newknot.store.campaigns import get_campaign, list_campaigns, put_campaign, remove_campaign
from newknot.store.rotations import open_rotations
from newknot.store.vault import Vault, new_id
from newknot.usecases.clock import Clock
from newknot.usecases.errors import DriveRunning
from newknot.usecases.logins.logins import list_logins
from newknot.usecases.rotation.driving import Drive, Driver
from newknot.usecases.rotation.rotations import StageWish, begin_rotation

__all__ = ["get_campaign", "list_campaigns"]

LOGINS_MOST = 10_000
SIDE_BY_SIDE = 4


class Standing(StrEnum):
    """Where one login of a campaign stands."""

    DONE = "done"
    UNDER_WAY = "under_way"
    WAITING = "waiting"


@dataclass(frozen=True, slots=True)
class Place:
    """A login of a campaign; rotation_id: of the one that is open."""

    card: LoginCard
    standing: Standing
    rotation_id: str | None


def begin_campaign(vault: Vault, login_ids: Sequence[str], *, now: datetime) -> Campaign:
    """A campaign over these logins. Raises `FieldInvalid` where one is not there, or none is."""
    if not login_ids or len(login_ids) > LOGINS_MOST:
        raise FieldInvalid("login_ids", f"are not between 1 and {LOGINS_MOST:,}")
    cards, _ = list_logins(vault)
    if set(login_ids) - {card.login_id for card in cards}:
        raise FieldInvalid("login_ids", "hold one that is no login")
    campaign = Campaign(new_id(), now, order_of_work(login_ids, resets(cards)))
    with vault.transaction() as tx:
        put_campaign(tx, campaign)
    return campaign


def places_of(vault: Vault, campaign: Campaign) -> list[Place]:
    """The logins that are still there, in the order of work."""
    cards = {card.login_id: card for card in list_logins(vault)[0]}
    under_way = open_rotations(vault)
    places: list[Place] = []
    for login_id in campaign.login_ids:
        card = cards.get(login_id)
        if card is None:
            continue
        rotation_id = under_way.get(login_id)
        standing = Standing.WAITING
        if rotation_id is not None:
            standing = Standing.UNDER_WAY
        elif card.secret_since_at > campaign.begun_at:
            standing = Standing.DONE
        places.append(Place(card, standing, rotation_id))
    return places


def end_campaign(vault: Vault, campaign_id: str) -> None:
    """Lets a campaign go; logins and rotations stay as they are. Raises `RecordMissing`."""
    with vault.transaction() as tx:
        remove_campaign(tx, campaign_id)


def drive_campaign(
    vault: Vault,
    campaign: Campaign,
    begin_drive: Callable[[str], Drive],
    *,
    random: RandomSource,
    clock: Clock,
    own_port: int,
) -> dict[str, NewKnotError]:
    """Drives all its logins that may be and are not done, a few side by side.

    begin_drive notes a drive by its rotation, so that each can be watched and stopped; it raises
    `DriveRunning` where one is under way. One site that fails does not stop the others, nor one
    login whose rotation cannot be begun: answers these, each with why.
    """
    not_begun: dict[str, NewKnotError] = {}

    def one(login_id: str) -> None:
        try:
            rotation = begin_rotation(vault, login_id, StageWish(), random=random, now=clock.now())
            drive = begin_drive(rotation.rotation_id)
        except DriveRunning:
            return
        except NewKnotError as error:
            not_begun[login_id] = error
            return
        try:
            Driver(
                vault, rotation.rotation_id, drive, random=random, clock=clock, own_port=own_port
            ).run()
        except NewKnotError as error:
            drive.says(error.code.replace("_", " "))
            drive.outcome = "stopped"

    wanted = [
        place.card.login_id
        for place in places_of(vault, campaign)
        if place.card.driven and place.standing is not Standing.DONE
    ]
    with ThreadPoolExecutor(SIDE_BY_SIDE) as pool:
        list(pool.map(one, wanted))
    return not_begun
