"""What the records of a bundle hold, typed and bounded, before anything is compared with them.

The documents are those that the vault itself seals; a key that is not known here is let be, so that
a later version's bundle can be read.
"""

from datetime import date, datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, Strict, ValidationError

from newknot.core.audit.finding import FindingKind
from newknot.core.audit.waiver import WaiverReason
from newknot.core.errors import NewKnotError
from newknot.core.login import NOTES_LIMIT, SECRET_LIMIT, Importance, SecondFactor
from newknot.core.policy import SitePolicy
from newknot.core.rotation import RotationEvent, RotationState

LIST_MOST, KEYS_MOST = 20_000, 2_000


def _moment(value: object) -> object:
    if not isinstance(value, str) or len(value) > 40:
        raise ValueError("is no moment")
    if datetime.fromisoformat(value).tzinfo is None:
        raise ValueError("has no zone")
    return value


def _day(value: object) -> object:
    if not isinstance(value, str):
        raise ValueError("is no day")
    date.fromisoformat(value)
    return value


def _policy(value: object) -> object:
    if not isinstance(value, dict):
        raise ValueError("is no policy")
    try:
        SitePolicy.from_dict(value)
    except NewKnotError as error:
        raise ValueError("is no policy") from error
    return value


Text = Annotated[str, Field(max_length=max(NOTES_LIMIT, SECRET_LIMIT))]
Count = Annotated[int, Field(ge=0, le=1 << 53)]
Moment = Annotated[str, BeforeValidator(_moment)]
Day = Annotated[str, BeforeValidator(_day)]
Id = Annotated[str, Field(pattern=r"^[0-9a-f]{32}$")]
Texts = Annotated[list[Text], Field(max_length=LIST_MOST)]
Stamp = Annotated[tuple[Count, Text], Strict(False)]
Stamps = Annotated[dict[Text, Stamp], Field(max_length=KEYS_MOST)]


class _Document(BaseModel):
    model_config = ConfigDict(defer_build=True, extra="allow", strict=True, frozen=True)

    stamps: Stamps = {}
    edition: Count = 0
    orders: Annotated[dict[Text, Texts], Field(max_length=KEYS_MOST)] = {}


class Origin(BaseModel):
    """How a secret came to be."""

    model_config = ConfigDict(defer_build=True, extra="allow", strict=True)

    kind: Literal["drawn", "own", "imported"]
    entropy_bits: Annotated[float, Field(ge=0, le=1e6)] | None = None


class LoginCard(_Document):
    """What lists may open of a login."""

    title: Text
    user_name: Text
    address: Text
    notes: Text
    fields: Annotated[list[Annotated[tuple[Text, Text], Strict(False)]], Field(max_length=500)]
    secret_field_names: Texts
    folder: Text
    owner: Text
    tags: Texts
    importance: Annotated[Importance, Strict(False)]
    expires_on: Day | None
    resets_by: Id | None
    created_at: Moment
    changed_at: Moment
    secret_since_at: Moment
    has_secret: bool
    deleted_at: Moment | None
    second_factor: Annotated[SecondFactor, Strict(False)] = SecondFactor.NONE
    driven: bool = False
    driven_at: Texts = []
    parted_at: Moment | None = None
    texts_apart: Texts = []
    expires_set_at: Moment | None = None


_Field = (
    Annotated[tuple[Text, Text], Strict(False)] | Annotated[tuple[Text, Text, Text], Strict(False)]
)
_Code = Annotated[tuple[Text, Moment | None], Strict(False)]


class LoginSecrets(_Document):
    """The secret part of a login."""

    secret: Text
    origin: Origin
    secret_id: Text = ""
    fields: Annotated[list[_Field], Field(max_length=500)]
    code_key: Text = ""
    code_key_id: Text = ""
    backup_codes: Annotated[list[_Code], Field(max_length=500)] = []


_Entry = tuple[Text, Text, Origin, Moment, Moment, bool, Text]
_Apart = tuple[Text, Text, Text | None, Literal["apart", "kept", "left"]]
_Parted = tuple[Text, Text, Origin, Moment, Moment, bool, Text, Text]
_Placed = tuple[Text, Text, Origin, Moment, Moment, bool, Text, Text, Moment]


class LoginHistory(_Document):
    """Earlier secrets of a login."""

    earlier: Annotated[
        list[
            Annotated[_Entry, Strict(False)]
            | Annotated[_Parted, Strict(False)]
            | Annotated[_Placed, Strict(False)]
        ],
        Field(max_length=LIST_MOST),
    ]
    texts: Annotated[list[Annotated[_Apart, Strict(False)]], Field(max_length=LIST_MOST)] = []


class RotationCard(_Document):
    """How far a rotation is."""

    login_id: Id
    state: Annotated[RotationState, Strict(False)]
    began_at: Moment
    changed_at: Moment
    steps: Annotated[
        list[Annotated[tuple[Annotated[RotationEvent, Strict(False)], Moment], Strict(False)]],
        Field(max_length=LIST_MOST),
    ]
    refusal: Text
    current_copied_at: Moment | None
    is_sign_up: bool = False
    placed_at: Moment | None = None


class HeldSecret(BaseModel):
    """A secret that a rotation holds."""

    model_config = ConfigDict(defer_build=True, extra="allow", strict=True)

    secret: Text
    origin: Origin
    since_at: Moment
    secret_id: Text = ""


class RotationSecrets(_Document):
    """What a rotation has staged, and what it would put back."""

    staged: HeldSecret | None
    former: HeldSecret | None


class Policy(_Document):
    """A site policy with its name and source."""

    name: Text
    domains: Texts
    policy: Annotated[dict[str, Any], BeforeValidator(_policy)]
    source: Text
    changed_at: Moment
    offers_second_factor: bool = False


class Waiver(_Document):
    """A finding that was accepted."""

    login_id: Id
    kind: Annotated[FindingKind, Strict(False)]
    reason: Annotated[WaiverReason, Strict(False)]
    note: Text
    given_at: Moment
    until_on: Day | None
    evidence: Text
    others: Texts
    lifted_at: Moment | None
    basis: Text = ""
    guess_number_log10: Annotated[float, Field(ge=-10, le=1e6), Strict(False)] | None = None


class LooseEnd(_Document):
    """A secret that belongs to no login yet: when and where it went out."""

    handed_out_at: Moment
    address: Text
    length: Count


class LooseSecret(_Document):
    """Its secret."""

    secret: Text
    origin: Origin


class Campaign(_Document):
    """Logins whose secrets are changed one after another."""

    begun_at: Moment
    login_ids: Annotated[list[Id], Field(max_length=100_000)]


class OwnDetails(_Document):
    """What others could guess of the account holder, and own rates of attack."""

    lines: Texts
    rates: dict[Text, Annotated[float, Field(gt=0)]]


PARTS: dict[str, dict[str, type[_Document]]] = {
    "LOGIN": {"1": LoginCard, "2": LoginSecrets, "3": LoginHistory},
    "ROTATION": {"1": RotationCard, "2": RotationSecrets},
    "POLICY": {"1": Policy},
    "WAIVER": {"1": Waiver},
    "LOOSE_END": {"1": LooseEnd, "2": LooseSecret},
    "CAMPAIGN": {"1": Campaign},
    "OWN_DETAILS": {"1": OwnDetails},
}
"""Kind of record -> part -> what it holds."""


Kind = Literal["LOGIN", "ROTATION", "POLICY", "WAIVER", "LOOSE_END", "CAMPAIGN", "OWN_DETAILS"]


class Gone(BaseModel):
    """What is known of a record that was deleted for good: stamps by part, ids of its secrets."""

    model_config = ConfigDict(defer_build=True, extra="forbid", strict=True, populate_by_name=True)

    card: Stamps = Field({}, alias="1")
    secret: Stamps = Field({}, alias="2")
    history: Stamps = Field({}, alias="3")
    secrets: Texts
    texts: Texts | None = None
    also: Annotated[list["Gone"], Field(max_length=KEYS_MOST)] = []


class Bundle(BaseModel):
    """The whole of it, its records not looked into yet."""

    model_config = ConfigDict(defer_build=True, extra="allow", strict=True)

    vault_id: Annotated[str, Field(max_length=64)]
    made_at: Moment
    records: dict[Kind, dict[Id, dict[str, dict[str, Any]]]]
    removed: dict[Id, Gone]


def where(error: ValidationError) -> str:
    """The first place at fault, without what stands there."""
    place = ".".join(
        str(one) for one in error.errors(include_input=False, include_url=False)[0]["loc"]
    )
    return place[:120]
