"""Shapes of the worklist."""

from datetime import date, datetime

from pydantic import Field

from newknot.api.schemas.base import Shape
from newknot.core.audit import FindingKind
from newknot.core.audit.worklist import Need, RowKind


class FindingRow(Shape):
    """A row of the worklist, of a login or of a loose end. since_at: the age of its secret."""

    kind: FindingKind
    login_id: str | None
    loose_end_id: str | None
    title: str
    user_name: str
    importance: str
    evidence: str
    others: list[str]
    guess_number_log10: float | None
    since_at: datetime
    rotation_id: str | None
    reach: int
    why: str


class Summary(Shape):
    """A former check's counts by kind."""

    checked_at: datetime
    counts: dict[str, int]


class AskedOut(Shape):
    """A breach corpus as the check asked it. unchecked_count: secrets it could not be asked about,
    null for all, reason says why; sent_count: prefixes that left this machine for it.
    """

    name: str
    dated_on: date | None
    unique_count: int | None
    unchecked_count: int | None
    reason: str
    sent_count: int


class Worklist(Shape):
    """checked_at None: never checked. renewed_count of renewable_count logins have a new secret
    since a check first found one wanting. waived_count: findings accepted, which are not in the
    list. new_count, gone_count: against the check before; None where there was none. notices_at:
    when breach notices were last fetched. unmeasured: titles of logins whose secret could
    not be measured. changed_count: logins that are other than they were checked, or came after;
    policies_changed: site policies of which that is so. found_count: findings of the check,
    whatever became of them.
    """

    checked_at: datetime | None
    checked_count: int
    unread_count: int
    unmeasured: list[str]
    asked: list[AskedOut]
    findings: list[FindingRow]
    changed_count: int
    policies_changed: int
    found_count: int
    renewed_count: int
    renewable_count: int
    waived_count: int
    new_count: int | None
    gone_count: int | None
    notices_used: bool
    notices_at: datetime | None
    earlier: list[Summary]


class RowsIn(Shape):
    """Which rows of the worklist: those with a login that needs this, or has such a finding; so
    many from a place on.
    """

    facet: Need | FindingKind | None = None
    offset: int = Field(default=0, ge=0)
    limit: int = Field(default=60, ge=1, le=200)


class RowFinding(Shape):
    """A finding within a row. why: its place in the order, in a sentence. by_new_secret: whether
    one of the login settles it whole; by_passphrase: whether a new one of the vault would too.
    """

    kind: FindingKind
    evidence: str
    why: str
    by_new_secret: bool
    by_passphrase: bool


class WorkRow(Shape):
    """A row of the worklist: a login, a group of them, or a loose end (without a login).

    login_id: of a group its member that matters most. says: of a group, what ties it. count: the
    logins that the row counts for; size: members of the group in all. members: titles of the first
    ones; elsewhere: titles of members with a row of their own. shares_count: of a login, how
    many others have its secret now. since_at: the age of the secret.
    """

    row_id: str
    kind: RowKind
    login_id: str | None
    loose_end_id: str | None
    rotation_id: str | None
    title: str
    user_name: str
    importance: str
    says: str
    findings: list[RowFinding]
    needs: list[Need]
    is_first: bool
    count: int
    size: int
    members: list[str]
    elsewhere: list[str]
    shares_count: int
    guess_number_log10: float | None
    since_at: datetime
    reach: int


class SettledOut(Shape):
    """What was settled for a login today."""

    login_id: str
    title: str
    how: str


class WorkRows(Shape):
    """A part of the rows: `total` fit, `first_rows` of them stand above the line.

    logins, first, by_need, by_kind: in logins, of the whole worklist; `rotations` new secrets
    settle `settled_by_rotations` findings whole; rotations_here: those of the facet that was asked
    for. basis: what the check was, without its findings. settled_today: the latest of
    `settled_today_count`.
    """

    basis: Worklist
    total: int
    first_rows: int
    rows: list[WorkRow]
    logins: int
    first: int
    by_need: dict[str, int]
    by_kind: dict[str, int]
    rotations: int
    rotations_here: int
    settled_by_rotations: int
    settled_today_count: int
    settled_today: list[SettledOut]


class MembersIn(Shape):
    """Of which group row, and so many from a place on."""

    row_id: str
    offset: int = Field(default=0, ge=0)
    limit: int = Field(default=60, ge=1, le=200)


class MemberOut(Shape):
    """A login within the row of its group."""

    login_id: str
    title: str
    user_name: str
    importance: str
    kinds: list[FindingKind]
    since_at: datetime
    reach: int


class MembersOut(Shape):
    """A part of a group row's logins, the ones that matter most first."""

    total: int
    members: list[MemberOut]


class FacetIn(Shape):
    """Which logins of the worklist; sharing_with: those that share a login's secret, and it."""

    facet: Need | FindingKind | None = None
    row_id: str | None = None
    sharing_with: str | None = None


class LoginIds(Shape):
    """Logins by id, the most urgent first."""

    login_ids: list[str]
