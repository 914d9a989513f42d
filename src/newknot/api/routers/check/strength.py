"""Measuring texts, and the attack budgets they are held against."""

from collections.abc import Sequence

from fastapi import APIRouter, Depends, Request

from newknot.api.deps import KeeperDep, Work, WorkDep, session_of, session_or_no_vault
from newknot.api.schemas.check.strength import (
    BudgetOut,
    CompareIn,
    CompareOut,
    MeasureIn,
    MeasureOut,
    OwnDetailsIn,
    OwnDetailsOut,
)
from newknot.core.own_details import LINES_MOST, OwnDetails
from newknot.core.safeguards import Act
from newknot.core.strength import BUDGETS, compared
from newknot.core.strength.budgets import AttackBudget
from newknot.store.manifest import Label
from newknot.usecases.check.measuring import (
    change_own_details,
    full_measure,
    get_own_details,
    own_budgets,
)
from newknot.usecases.errors import SessionUnknown, VaultLocked
from newknot.usecases.revisions import revision_of_one, unless_changed

router = APIRouter(prefix="/strength", tags=["strength"])


@router.get("/budgets")
async def budgets(request: Request, keeper: KeeperDep) -> list[BudgetOut]:
    """The named attacks with their arithmetic, at the user's own rates once there is a session."""
    rates: Sequence[AttackBudget] = BUDGETS
    try:
        await session_of(request)
        with keeper.at_work() as vault:
            rates = own_budgets(vault)
    except (SessionUnknown, VaultLocked):
        pass
    return [
        BudgetOut(
            code=b.code,
            label=b.label,
            guesses_log10=b.guesses_log10,
            rate_per_s=b.rate_per_s,
            usual_rate_per_s=usual.rate_per_s,
            is_own_rate=b.rate_per_s != usual.rate_per_s,
            basis=b.basis,
        )
        for b, usual in zip(rates, BUDGETS, strict=True)
    ]


@router.post("/measure", dependencies=[Depends(session_or_no_vault)])
def measure_text(body: MeasureIn, keeper: KeeperDep) -> MeasureOut:
    """The guess number of a text. Without a session only while there is no vault yet."""
    text = body.secret.get_secret_value()
    if not keeper.exists:
        found = full_measure(text, vault=None, corpora=keeper.corpora, context=body.context)
        return MeasureOut.of(found, BUDGETS)
    with keeper.at_work() as vault:
        found = full_measure(text, vault=vault, corpora=keeper.corpora, context=body.context)
        return MeasureOut.of(found, own_budgets(vault))


@router.post("/compare")
def compare_texts(body: CompareIn, work: WorkDep) -> CompareOut:
    """Two texts side by side: which stands more guesses, and why."""
    first, second = (
        full_measure(
            text.get_secret_value(), vault=work.vault, corpora=work.keeper.corpora, context=()
        )
        for text in (body.first, body.second)
    )
    found, rates = compared(first.measure, second.measure), own_budgets(work.vault)
    return CompareOut(
        first=MeasureOut.of(first, rates),
        second=MeasureOut.of(second, rates),
        better=found.better,
        orders=round(found.orders, 1),
        reasons=list(found.reasons),
    )


@router.get("/own-details")
def own_details(work: WorkDep) -> OwnDetailsOut:
    """What the user wrote down of what others know, and own rates of attack."""
    return _shaped(work, get_own_details(work.vault))


@router.put("/own-details")
def change_details(body: OwnDetailsIn, work: WorkDep) -> OwnDetailsOut:
    """Writes them. Needs the same proof as editing."""
    work.require(Act.EDIT)
    lines = tuple(line.strip() for line in body.lines if line.strip())
    details = OwnDetails(lines, body.rates)
    with unless_changed(work.vault, lambda: _revision(work), body.revision):
        change_own_details(work.vault, details)
    return _shaped(work, details)


def _shaped(work: Work, details: OwnDetails) -> OwnDetailsOut:
    return OwnDetailsOut(
        lines=list(details.lines),
        rates=dict(details.rates),
        lines_most=LINES_MOST,
        revision=_revision(work),
    )


def _revision(work: Work) -> str:
    return revision_of_one(work.vault, Label.OWN_DETAILS)
