"""Measures, attack budgets, own details, and the vault's passphrase as the API shapes them."""

from collections.abc import Sequence
from datetime import datetime
from typing import Literal

from pydantic import Field, SecretStr

from newknot.api.schemas.base import Shape
from newknot.core.breach.times import times_text
from newknot.core.strength.budgets import AttackBudget
from newknot.core.strength.comparison import one_in
from newknot.usecases.check.measuring import FullMeasure
from newknot.usecases.vault.vault_passphrase import Judgement, Verdict


class MeasureIn(Shape):
    """A text to be measured, and what the site knows of its user."""

    secret: SecretStr
    context: list[str] = Field(default_factory=list)


class CompareIn(Shape):
    """Two texts."""

    first: SecretStr
    second: SecretStr


class SegmentOut(Shape):
    """The stretch [start, end) in characters of the text in NFC, and what it was taken for."""

    start: int
    end: int
    kind: str
    label: str
    cost_log10: float
    one_in: str


class AdviceOut(Shape):
    """A change, and the guess number after it."""

    change: str
    guess_number_log10: float


class FallOut(Shape):
    """Whether an attack's budget covers the secret, and how long its rate takes to it."""

    code: str
    label: str
    falls: bool
    takes: str


class MeasureOut(Shape):
    """A guess number with its reasons. breached: how often the corpus holds the text, in words;
    null where it does not, or where `corpus_used` is false. site_keeps: what the site does to the
    text that was measured, in words. is_bound: whether the number is the most that a chosen text
    can be worth, if nobody guesses how it was made. least_log10: what it is worth if somebody does.
    scheme_log10: what is taken off because parts put together by hand hang together.
    """

    guess_number_log10: float
    is_bound: bool
    least_log10: float
    order_log10: float
    scheme_log10: float
    reasons: str
    falls_to: str | None
    falls: list[FallOut]
    segments: list[SegmentOut]
    measured_characters: int
    context_was_cut: bool
    corpus_used: bool
    breached: str | None
    advice: list[AdviceOut]
    site_keeps: str

    @staticmethod
    def of(
        found: FullMeasure, budgets: Sequence[AttackBudget], *, site_keeps: str = ""
    ) -> "MeasureOut":
        """The shape of a measure, with times at these rates."""
        measured = found.measure
        fallen = measured.falls_to
        return MeasureOut(
            guess_number_log10=measured.guess_number_log10,
            is_bound=measured.is_bound,
            least_log10=measured.least_log10,
            order_log10=round(measured.order_log10, 2),
            scheme_log10=round(measured.scheme_log10, 2),
            reasons=measured.reasons,
            falls_to=fallen.code if fallen is not None else None,
            falls=[
                FallOut(code=f.budget.code, label=f.budget.label, falls=f.falls, takes=f.takes)
                for f in measured.against(budgets)
            ],
            segments=[
                SegmentOut(
                    start=s.start,
                    end=s.end,
                    kind=s.kind.value,
                    label=s.label,
                    cost_log10=round(s.cost_log10, 2),
                    one_in=one_in(s.cost_log10),
                )
                for s in measured.segments
            ],
            measured_characters=measured.measured_characters,
            context_was_cut=measured.context_was_cut,
            corpus_used=found.breached_count is not None,
            breached=times_text(found.breached_count) if found.breached_count else None,
            advice=[
                AdviceOut(change=a.change, guess_number_log10=a.guess_number_log10)
                for a in found.advice
            ],
            site_keeps=site_keeps,
        )


class CompareOut(Shape):
    """Both measures, which is the better by how many orders, and why."""

    first: MeasureOut
    second: MeasureOut
    better: Literal["first", "second", "neither"]
    orders: float
    reasons: list[str]


class BudgetOut(Shape):
    """A named attack. is_own_rate: the rate is the user's own."""

    code: str
    label: str
    guesses_log10: float
    rate_per_s: float
    usual_rate_per_s: float
    is_own_rate: bool
    basis: str


class OwnDetailsIn(Shape):
    """Names, dates and words, one a line; rates in guesses per second where not the usual ones."""

    lines: list[str] = Field(default_factory=list)
    rates: dict[str, float] = Field(default_factory=dict)
    revision: str | None = None
    """That which was seen: with it, what was changed meanwhile is not saved over."""


class OwnDetailsOut(Shape):
    """The same as they are kept, and how many lines are looked for."""

    lines: list[str]
    rates: dict[str, float]
    lines_most: int
    revision: str


class JudgeIn(Shape):
    """A passphrase that is being chosen. drawn: by chance, here or by dice."""

    passphrase: SecretStr
    drawn: bool = False


class JudgementOut(Shape):
    """What is said of it while it is typed. rests_on_a_bound: enough only if nobody guesses how it
    was made.
    """

    measure: MeasureOut
    verdict: Verdict
    rests_on_a_bound: bool
    resembles_logins: list[str]
    resembles_earlier: bool

    @staticmethod
    def of(judged: Judgement, budgets: Sequence[AttackBudget]) -> "JudgementOut":
        """The shape of a judgement."""
        return JudgementOut(
            measure=MeasureOut.of(judged.measured, budgets),
            verdict=judged.verdict,
            rests_on_a_bound=judged.rests_on_a_bound,
            resembles_logins=list(judged.resembles_logins),
            resembles_earlier=judged.resembles_earlier,
        )


class PassphraseFacts(Shape):
    """What a new passphrase is compared with."""

    secrets_count: int
    passphrases_count: int
    since_at: datetime | None


class ChangePassphraseIn(Shape):
    """The present passphrase, and the one that is to be. drawn: by chance, here or by dice."""

    current: SecretStr
    passphrase: SecretStr
    drawn: bool = False
