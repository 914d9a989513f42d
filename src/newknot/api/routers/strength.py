"""Measuring a text, and the attack budgets it is held against."""

from fastapi import APIRouter, Depends

from newknot.api.deps import session_or_no_vault
from newknot.api.schemas.checks import BudgetOut, MeasureIn, MeasureOut, SegmentOut
from newknot.core.strength import BUDGETS, measure

router = APIRouter(prefix="/strength", tags=["strength"])


@router.get("/budgets")
def budgets() -> list[BudgetOut]:
    """The named attacks with their arithmetic: no secret of anyone."""
    return [
        BudgetOut(
            code=b.code,
            label=b.label,
            guesses_log10=b.guesses_log10,
            rate_per_s=b.rate_per_s,
            basis=b.basis,
        )
        for b in BUDGETS
    ]


@router.post("/measure", dependencies=[Depends(session_or_no_vault)])
def measure_text(body: MeasureIn) -> MeasureOut:
    """The guess number of a text. Without a session only while there is no vault yet."""
    found = measure(body.secret.get_secret_value(), body.context)
    fallen = found.falls_to
    return MeasureOut(
        guess_number_log10=found.guess_number_log10,
        reasons=found.reasons,
        falls_to=fallen.code if fallen is not None else None,
        segments=[
            SegmentOut(
                start=s.start,
                end=s.end,
                kind=s.kind.value,
                label=s.kind.label,
                cost_log10=round(s.cost_log10, 2),
            )
            for s in found.segments
        ],
    )
