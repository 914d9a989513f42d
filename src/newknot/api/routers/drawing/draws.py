"""Drawing secrets to a policy: characters, words, sentences, PINs, lines."""

from fastapi import APIRouter, Response

from newknot.api.deps import Work, WorkDep
from newknot.api.schemas.drawing.draws import (
    AtSite,
    DiceIn,
    DiceOut,
    DrawIn,
    DrawOut,
    EarlierDrawOut,
    KeepIn,
    LineIn,
    LooseEndOut,
    PinIn,
    SentenceIn,
    SideOut,
    SidesIn,
    WordList,
    WordsIn,
    WordsShape,
)
from newknot.core.generate import PassphraseShape, SentenceShape
from newknot.core.generate.bits import floor_log2
from newknot.core.generate.dice import Dice
from newknot.core.generate.phrases.word_list import Language, word_list
from newknot.core.policy import SitePolicy
from newknot.store.kept_draws import get_chosen_list
from newknot.usecases.check.measuring import get_own_details
from newknot.usecases.drawing import drawing as use
from newknot.usecases.drawing.draw_ring import Draw
from newknot.usecases.drawing.kept_draws import choose_list, empty_kept_draws
from newknot.usecases.drawing.side_by_side import Side, side_by_side
from newknot.usecases.logins.loose_ends import keep_draw
from newknot.usecases.policies import default_policy, get_policy

router = APIRouter(prefix="/draws", tags=["generate"])


@router.get("")
def earlier_draws(work: WorkDep) -> list[EarlierDrawOut]:
    """The draws still kept, newest first, without their secrets."""
    return [
        EarlierDrawOut(
            draw_id=draw_id,
            kind=facts.kind,
            drawn_at=drawn_at,
            length=length,
            entropy_bits=facts.origin.entropy_bits,
        )
        for draw_id, length, drawn_at, facts in work.keeper.draws.listed()
    ]


@router.post("")
def draw(body: DrawIn, work: WorkDep) -> DrawOut:
    """One uniform draw to the policy."""
    k = work.keeper
    policy = _policy(body, work) or default_policy()
    drawn = use.draw_password(k.draws, k.spaces, k.random, policy, length=body.length, now=work.now)
    return _answer(drawn, body.replaces, work)


@router.post("/words")
def draw_words(body: WordsIn, work: WorkDep) -> DrawOut:
    """One uniform passphrase that the site takes, some of an earlier one's words kept by wish."""
    k = work.keeper
    after = None if body.after is None else k.draws.get(body.after)
    drawn = use.draw_words(
        k.draws,
        k.spaces,
        k.random,
        _shape(body.shape),
        _policy(body, work),
        after=after,
        keep=body.keep,
        now=work.now,
    )
    return _answer(drawn, body.replaces, work)


@router.post("/dice")
def take_dice(body: DiceIn, work: WorkDep) -> DrawOut:
    """The passphrase that real dice picked."""
    k = work.keeper
    faces = [one.get_secret_value() for one in body.faces]
    shape = _shape(body.shape)
    drawn = use.words_of_dice(k.draws, k.random, shape, faces, sides=body.sides, now=work.now)
    return _answer(drawn, None, work)


@router.get("/dice")
def dice(
    work: WorkDep, sides: int = 6, list_size: int = 7776, language: Language = "en"
) -> DiceOut:
    """How often dice of so many sides are thrown for a word of a list."""
    places = len(word_list(list_size, language))
    found = Dice(sides, places)
    return DiceOut(
        throws=found.throws, counting=round(found.counting, 4), word_bits=floor_log2(places)
    )


@router.get("/list")
def chosen_list(work: WorkDep) -> WordList:
    """The word list that was chosen last."""
    held = get_chosen_list(work.vault)
    if held is None:
        return WordList()
    language, size = held
    return WordList.model_validate({"language": language, "list_size": size})


@router.put("/list", status_code=204)
def choose(body: WordList, work: WorkDep) -> Response:
    """Remembers a word list for the passphrases to come."""
    choose_list(work.vault, body.language, body.list_size)
    return Response(status_code=204)


@router.delete("", status_code=204)
def empty(work: WorkDep) -> None:
    """Lets all draws that are still kept go, those of before the last lock too."""
    empty_kept_draws(work.vault, work.keeper.draws)


@router.post("/sentence")
def draw_sentence(body: SentenceIn, work: WorkDep) -> DrawOut:
    """One uniform sentence that the site takes."""
    k = work.keeper
    after = None if body.after is None else k.draws.get(body.after)
    drawn = use.draw_sentence(
        k.draws,
        k.spaces,
        k.random,
        SentenceShape(body.template, body.joiner, body.stop, body.capital, body.language),
        _policy(body, work),
        after=after,
        now=work.now,
    )
    return _answer(drawn, body.replaces, work)


@router.post("/pin")
def draw_pin(body: PinIn, work: WorkDep) -> DrawOut:
    """One PIN that is none of the obvious ones."""
    k = work.keeper
    drawn = use.draw_pin(k.draws, k.random, body.length, now=work.now)
    return _answer(drawn, body.replaces, work, body.policy_id)


@router.post("/line")
def take_line(body: LineIn, work: WorkDep) -> DrawOut:
    """The first letters of the user's own line, measured as chosen text."""
    known = get_own_details(work.vault).lines
    line = body.line.get_secret_value()
    drawn = use.take_line(work.keeper.draws, line, known=known, now=work.now)
    return _answer(drawn, None, work, body.policy_id)


@router.post("/side-by-side")
def compare(body: SidesIn, work: WorkDep) -> list[SideOut]:
    """The same worth as characters, words and a sentence."""
    k, policy = work.keeper, _policy(body, work)
    aside = k.draws.aside
    assert aside is not None
    sides = side_by_side(
        aside,
        k.spaces,
        k.random,
        bits=body.bits,
        policy=policy or default_policy(),
        at_site=policy is not None,
        words=_shape(body.shape),
        now=work.now,
    )
    return [_side(one) for one in sides]


@router.get("/{draw_id}")
def kept_draw(draw_id: str, work: WorkDep) -> DrawOut:
    """A draw that is still kept."""
    return _shaped(work.keeper.draws.get(draw_id))


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


def _policy(body: AtSite, work: Work) -> SitePolicy | None:
    if body.policy is not None:
        return SitePolicy.from_dict(body.policy)
    if body.policy_id is not None:
        return get_policy(work.vault, body.policy_id).policy
    return None


def _shape(shape: WordsShape) -> PassphraseShape:
    return PassphraseShape(
        shape.words,
        shape.separator,
        shape.capitals,
        shape.addition,
        shape.list_size,
        shape.language,
    )


def _answer(drawn: Draw, replaces: str | None, work: Work, policy_id: str | None = None) -> DrawOut:
    """The draw; what it only passed is let go, and what it was not drawn to it is held against."""
    if replaces is not None:
        work.keeper.draws.drop(replaces)
    if policy_id is None:
        return _shaped(drawn)
    policy = get_policy(work.vault, policy_id).policy
    found = policy.violations(drawn.secret.reveal())
    return _shaped(drawn, list(dict.fromkeys(violation.says for violation in found)))


def _shaped(drawn: Draw, breaks: list[str] | None = None) -> DrawOut:
    facts = drawn.facts
    return DrawOut(
        draw_id=drawn.draw_id,
        kind=facts.kind,
        drawn_at=drawn.drawn_at,
        secret=drawn.secret.reveal(),
        words=list(drawn.words),
        entropy_bits=facts.origin.entropy_bits,
        whole_bits=facts.whole_bits,
        looked_at=min(facts.looked_at.possible, 10**9),
        space_size_log10=facts.space_size_log10,
        is_exact=facts.is_exact,
        notes=list(facts.notes),
        breaks=breaks or [],
    )


def _side(one: Side) -> SideOut:
    return SideOut(
        kind=one.kind,
        says=one.says,
        draw=None if one.draw is None else _shaped(one.draw),
        length=one.length,
        key_presses=one.key_presses,
        phone_taps=one.phone_taps,
        problem_code=None if one.problem is None else one.problem.code,
        problem_data={} if one.problem is None else one.problem.data,
    )
