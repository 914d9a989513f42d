"""Shapes of campaigns."""

from datetime import datetime

from pydantic import Field

from newknot.api.schemas.base import Shape
from newknot.usecases.rotation.campaign_choices import Way
from newknot.usecases.rotation.campaigns import Standing


class CampaignIn(Shape):
    """The logins to rotate."""

    login_ids: list[str]


class ChoicesIn(Shape):
    """What a campaign can be made of, in one way; typed: words that its label holds."""

    way: Way
    typed: str = Field(default="", max_length=1_000)
    limit: int = Field(default=60, ge=1, le=200)


class ChoiceOut(Shape):
    """label: of findings the kind, else as it is shown. count: logins with a secret to rotate."""

    choice_id: str
    label: str
    count: int


class ChoicesOut(Shape):
    """The largest few, of so many in all."""

    total: int
    choices: list[ChoiceOut]


class ChoiceIn(Shape):
    """One choice of a way."""

    way: Way
    choice_id: str = Field(max_length=1_000)


class ChosenOut(Shape):
    """The logins of a choice, and the titles of the first few."""

    login_ids: list[str]
    titles: list[str]


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
