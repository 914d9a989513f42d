"""Drawing secrets to a policy."""

from collections.abc import Sequence

from fastapi import APIRouter

from newknot.api.deps import WorkDep
from newknot.api.schemas.draws import DrawIn, DrawOut, KeepIn, LooseEndOut, WordsIn
from newknot.core.generate import PassphraseShape
from newknot.core.policy import SitePolicy
from newknot.usecases.draw_ring import Draw
from newknot.usecases.drawing import draw_password, draw_words
from newknot.usecases.loose_ends import keep_draw
from newknot.usecases.policies import default_policy, get_policy

router = APIRouter(prefix="/draws", tags=["generate"])


@router.post("")
def draw(body: DrawIn, work: WorkDep) -> DrawOut:
    """One uniform draw to the policy."""
    if body.policy is not None:
        policy = SitePolicy.from_dict(body.policy)
    elif body.policy_id is not None:
        policy = get_policy(work.vault, body.policy_id).policy
    else:
        policy = default_policy()
    keeper = work.keeper
    drawn = draw_password(keeper.draws, keeper.spaces, keeper.random, policy, length=body.length)
    if body.replaces is not None:
        work.keeper.draws.drop(body.replaces)
    return _shaped(drawn)


@router.post("/words")
def draw_passphrase(body: WordsIn, work: WorkDep) -> DrawOut:
    """One uniform passphrase, and what of it the site would refuse."""
    shape = PassphraseShape(body.words, body.separator, body.capitals, body.digit)
    drawn = draw_words(work.keeper.draws, work.keeper.random, shape)
    if body.replaces is not None:
        work.keeper.draws.drop(body.replaces)
    breaks: list[str] = []
    if body.policy_id is not None:
        policy = get_policy(work.vault, body.policy_id).policy
        found = policy.violations(drawn.secret.reveal())
        breaks = list(dict.fromkeys(violation.says for violation in found))
    return _shaped(drawn, breaks)


@router.get("/{draw_id}/before")
def earlier_draw(draw_id: str, work: WorkDep) -> DrawOut:
    """The draw before another."""
    return _shaped(work.keeper.draws.before(draw_id))


@router.post("/{draw_id}/keep")
def keep(draw_id: str, body: KeepIn, work: WorkDep) -> LooseEndOut:
    """Seals a draw as a loose end: called before the secret leaves the page."""
    kept = keep_draw(work.vault, work.keeper.draws.get(draw_id), address=body.address, now=work.now)
    return LooseEndOut(
        loose_end_id=kept.loose_end_id,
        handed_out_at=kept.handed_out_at.isoformat(),
        address=kept.address,
        length=kept.length,
    )


def _shaped(drawn: Draw, breaks: Sequence[str] = ()) -> DrawOut:
    assert drawn.origin.entropy_bits is not None
    return DrawOut(
        draw_id=drawn.draw_id,
        secret=drawn.secret.reveal(),
        entropy_bits=drawn.origin.entropy_bits,
        space_size_log10=drawn.space_size_log10,
        is_exact=drawn.is_exact,
        breaks=list(breaks),
    )
