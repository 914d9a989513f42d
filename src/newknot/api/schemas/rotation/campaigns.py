"""Shapes of campaigns."""

from datetime import datetime

from newknot.api.schemas.base import Shape
from newknot.usecases.rotation.campaigns import Standing


class CampaignIn(Shape):
    """The logins to rotate."""

    login_ids: list[str]


class PlaceOut(Shape):
    """A login of a campaign. driven: New Knot may fill its site's forms. problem: why its rotation
    could not be begun; empty where it could, or was not tried.
    """

    login_id: str
    title: str
    user_name: str
    driven: bool
    standing: Standing
    rotation_id: str | None
    problem: str
    problem_data: dict[str, object]


class CampaignOut(Shape):
    """A campaign with its logins in the order of work."""

    campaign_id: str
    begun_at: datetime
    done_count: int
    places: list[PlaceOut]
