"""What all shapes share: unknown keys are refused, instances do not change."""

from pydantic import BaseModel, ConfigDict


class Shape(BaseModel):
    """A request or an answer."""

    model_config = ConfigDict(extra="forbid", frozen=True, hide_input_in_errors=True)


class Problem(BaseModel):
    """Every error answer: a code, and data that holds no secret."""

    code: str
    data: dict[str, object]
