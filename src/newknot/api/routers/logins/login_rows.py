"""The list of logins in parts; what is sought travels in a call's body, never in an address."""

from fastapi import APIRouter

from newknot.api.deps import Work, WorkDep
from newknot.api.schemas.logins.login_rows import (
    FindIn,
    FoundLogin,
    HabitsOut,
    KnownLoginOut,
    LoginListLine,
    LoginRowsIn,
    LoginRowsOut,
    TypedLogin,
)
from newknot.api.schemas.logins.logins import LoginRow
from newknot.api.shaping import RowMaker
from newknot.core.address import domain_of
from newknot.core.audit import FindingKind
from newknot.core.audit.worklist import RowKind
from newknot.core.login import LoginCard
from newknot.store.rotations import open_rotations
from newknot.usecases.logins.known_logins import habits, known_login
from newknot.usecases.logins.login_rows import LoginLine, SiteHead
from newknot.usecases.logins.logins import list_logins

router = APIRouter(prefix="/logins", tags=["logins"])


@router.post("/rows")
def login_rows(body: LoginRowsIn, work: WorkDep) -> LoginRowsOut:
    """A part of the list of logins outside the bin."""
    worklist = work.keeper.worklist.as_now(work.vault, now=work.now).worklist
    urgent = [
        one for row in worklist.rows if row.kind is not RowKind.LOOSE_END for one in row.login_ids
    ]
    held = work.keeper.login_list.lines(
        work.vault, search=body.search, folder=body.folder, order=body.order, urgent=urgent
    )
    rows = RowMaker(work.vault, now=work.now)
    return LoginRowsOut(
        lines_total=len(held.lines),
        found=held.found,
        logins_count=held.total,
        damaged_count=len(held.damaged),
        folders=dict(held.folders),
        rows=[
            _line(line, rows, work) for line in held.lines[body.offset : body.offset + body.limit]
        ],
    )


@router.post("/find")
def find_logins(body: FindIn, work: WorkDep) -> list[FoundLogin]:
    """The few logins that are nearest to what was typed."""
    found = work.keeper.login_list.find(work.vault, body.typed, body.limit)
    return [_found(card, work) for card in found]


@router.get("/habits")
def login_habits(work: WorkDep) -> HabitsOut:
    """What a form offers for a login: folders and user names."""
    found = habits(work.vault)
    return HabitsOut(folders=list(found.folders), user_names=list(found.user_names))


@router.post("/known")
def known(body: TypedLogin, work: WorkDep) -> KnownLoginOut:
    """Whether a login that is being typed is there already, and what is known of its site."""
    found = known_login(
        work.vault, title=body.title, user_name=body.user_name, address=body.address
    )
    return KnownLoginOut(
        same=_found(found.same, work) if found.same is not None else None,
        address=found.address,
        user_names=list(found.user_names),
    )


@router.get("/due")
def due_logins(work: WorkDep) -> list[LoginRow]:
    """Logins whose own day, or their site's greatest age, is near or past: the nearest first."""
    rows = RowMaker(work.vault, now=work.now)
    cards, _ = list_logins(work.vault)
    near = [(day, card) for card in cards for day, due in [rows.due(card)] if day and due]
    return [rows.row(card) for _, card in sorted(near, key=lambda one: (one[0], one[1].title))]


def _found(card: LoginCard, work: Work) -> FoundLogin:
    return FoundLogin(
        login_id=card.login_id,
        title=card.title,
        user_name=card.user_name,
        domain=domain_of(card.address),
        has_secret=card.has_secret,
        rotation_id=open_rotations(work.vault).get(card.login_id),
    )


def _line(line: SiteHead | LoginLine, rows: RowMaker, work: Work) -> LoginListLine:
    if isinstance(line, SiteHead):
        return LoginListLine(
            login=None,
            kinds=[],
            in_group=False,
            place=None,
            site=line.domain,
            site_count=line.count,
        )
    worklist = work.keeper.worklist.as_now(work.vault, now=work.now).worklist
    kinds: list[FindingKind] = [f.kind for f in worklist.findings.get(line.card.login_id, ())]
    return LoginListLine(
        login=rows.row(line.card),
        kinds=list(dict.fromkeys(kinds)),
        in_group=line.in_group,
        place=line.place,
        site="",
        site_count=0,
    )
