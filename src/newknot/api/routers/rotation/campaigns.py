"""Campaigns: many rotations in one order, gone on with whenever one likes."""

from typing import Any

from fastapi import APIRouter, Response

from newknot.api.deps import Work, WorkDep
from newknot.api.schemas.rotation.campaigns import (
    CampaignIn,
    CampaignOut,
    ChoiceIn,
    ChoiceOut,
    ChoicesIn,
    ChoicesOut,
    ChosenOut,
    PlaceOut,
)
from newknot.core.errors import NewKnotError
from newknot.core.rotation.campaign import Campaign
from newknot.core.safeguards import Act
from newknot.usecases.errors import DriveRunning
from newknot.usecases.rotation import campaign_choices
from newknot.usecases.rotation import campaigns as use
from newknot.usecases.rotation.driving import Drive

TITLES_MOST = 8

router = APIRouter(prefix="/campaigns", tags=["rotation"])


@router.get("")
def list_campaigns(work: WorkDep) -> list[CampaignOut]:
    """All campaigns, newest first, as they stand."""
    return [_shaped(work, campaign) for campaign in use.list_campaigns(work.vault)]


@router.post("", status_code=201)
def begin(body: CampaignIn, work: WorkDep) -> CampaignOut:
    """A campaign over these logins: the plan; nothing is changed yet."""
    return _shaped(work, use.begin_campaign(work.vault, body.login_ids, now=work.now))


@router.post("/choices")
def choices(body: ChoicesIn, work: WorkDep) -> ChoicesOut:
    """What a campaign can be made of, the largest first."""
    found = campaign_choices.choices(work.vault, body.way, _findings(work), typed=body.typed)
    return ChoicesOut(
        total=len(found),
        choices=[
            ChoiceOut(choice_id=one.choice_id, label=one.label, count=one.count)
            for one in found[: body.limit]
        ],
    )


@router.post("/chosen")
def chosen(body: ChoiceIn, work: WorkDep) -> ChosenOut:
    """The logins of a choice; none where it is there no more."""
    cards = campaign_choices.logins_of(work.vault, body.way, body.choice_id, _findings(work))
    return ChosenOut(
        login_ids=[card.login_id for card in cards],
        titles=[card.title for card in cards[:TITLES_MOST]],
    )


@router.post("/{campaign_id}/drive")
def drive(campaign_id: str, work: WorkDep) -> CampaignOut:
    """Drives all of its logins that may be, side by side; answers at the end."""
    work.require(Act.EDIT)
    campaign = use.get_campaign(work.vault, campaign_id)

    def begin_drive(rotation_id: str) -> Drive:
        running = work.keeper.drives.get(rotation_id)
        if running is not None and not running.outcome:
            raise DriveRunning()
        work.keeper.drives[rotation_id] = fresh = Drive()
        return fresh

    work.keeper.not_begun[campaign_id] = use.drive_campaign(
        work.vault,
        campaign,
        begin_drive,
        random=work.keeper.random,
        clock=work.keeper.clock,
        own_port=work.port,
    )
    return _shaped(work, campaign)


@router.post("/{campaign_id}/stop", status_code=204)
def stop(campaign_id: str, work: WorkDep) -> Response:
    """Asks every drive of the campaign to leave its site."""
    campaign = use.get_campaign(work.vault, campaign_id)
    for place in use.places_of(work.vault, campaign):
        held = work.keeper.drives.get(place.rotation_id or "")
        if held is not None:
            held.stop()
    return Response(status_code=204)


@router.delete("/{campaign_id}", status_code=204)
def end(campaign_id: str, work: WorkDep) -> Response:
    """Lets a campaign go; logins and rotations stay as they are."""
    use.end_campaign(work.vault, campaign_id)
    return Response(status_code=204)


def _findings(work: Work) -> campaign_choices.Findings:
    return work.keeper.worklist.as_now(work.vault, now=work.now).worklist.findings


def _shaped(work: Work, campaign: Campaign) -> CampaignOut:
    places = use.places_of(work.vault, campaign)
    not_begun = work.keeper.not_begun.get(campaign.campaign_id, {})
    return CampaignOut(
        campaign_id=campaign.campaign_id,
        begun_at=campaign.begun_at,
        done_count=sum(place.standing is use.Standing.DONE for place in places),
        places=[
            PlaceOut(
                login_id=place.card.login_id,
                title=place.card.title,
                user_name=place.card.user_name,
                driven=place.card.driven,
                standing=place.standing,
                rotation_id=place.rotation_id,
                **_problem_of(place, not_begun),
            )
            for place in places
        ],
    )


def _problem_of(place: use.Place, not_begun: dict[str, NewKnotError]) -> dict[str, Any]:
    error = not_begun.get(place.card.login_id)
    if error is None or place.standing is not use.Standing.WAITING:
        return {"problem": "", "problem_data": {}}
    return {"problem": error.code, "problem_data": error.data}
