"""What all shapes share: unknown keys are refused, instances do not change."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

Whole = Annotated[int, Field(strict=True)]
"""A whole number: neither `true` nor a text of digits is taken for one."""


class Shape(BaseModel):
    """A request or an answer."""

    model_config = ConfigDict(
        extra="forbid",
        frozen=True,
        hide_input_in_errors=True,
        # The parser's cache of short texts would keep secrets beyond a lock.
        cache_strings="keys",
    )
