"""Shapes of site policies."""

from datetime import datetime
from typing import Literal

from newknot.api.schemas.base import Shape


class ConflictOut(Shape):
    """Rules that contradict one another; frees: one change that would help, if one is known;
    also_frees: others that would by themselves.
    """

    rules: list[str]
    says: str
    frees: str
    also_frees: list[str]
    is_decided: bool


class RulesIn(Shape):
    """A pasted text: rule attribute, input element, or plain list."""

    text: str


class RulesOut(Shape):
    """What was sure, as a policy, and the parts that were not."""

    policy: dict[str, object]
    unsure: list[str]


class PolicyIn(Shape):
    """A policy with its name and sites; source: typed, read from a form, or from a refusal."""

    name: str
    domains: list[str]
    policy: dict[str, object]
    source: Literal["typed", "form", "refusal"] = "typed"
    offers_second_factor: bool = False
    revision: str | None = None
    """That which was seen: with it, what was changed meanwhile is not saved over."""


class PartedPolicyOut(Shape):
    """A policy that a file has otherwise: which one it is here, and what the file says."""

    policy_id: str
    domains: list[str]
    policy: dict[str, object]
    offers_second_factor: bool
    source: str
    changed_at: datetime | None


class PoliciesBroughtOut(Shape):
    """Names of what came from a file; differing ones are replaced only where that was asked, else
    they stand in `parted` as the file has them.
    """

    added: list[str]
    same: list[str]
    differing: list[str]
    parted: list[PartedPolicyOut]


class WorthOut(Shape):
    """What a policy takes at a length; the example is nobody's secret."""

    length: int
    example: str
    entropy_bits: float
    is_exact: bool


class UsedByOut(Shape):
    """A login of the policy's sites, and whether its present secret breaks a rule."""

    login_id: str
    title: str
    is_broken: bool


class PolicyOut(Shape):
    """A policy of the library. not_drawn: why no draw can be made to it, as an error code."""

    policy_id: str
    name: str
    domains: list[str]
    policy: dict[str, object]
    source: str
    changed_at: datetime
    offers_second_factor: bool
    conflict: ConflictOut | None
    attribute_text: str
    not_drawn: str | None
    worth: WorthOut | None
    used_by: list[UsedByOut]
    revision: str


class PolicyList(Shape):
    """The library, and what is drawn to where no site is known."""

    policies: list[PolicyOut]
    default: dict[str, object]
    look_alikes: str
