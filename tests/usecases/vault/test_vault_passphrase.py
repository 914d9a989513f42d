"""What is said of a passphrase to be, at each bound."""

from dataclasses import replace

import pytest

from newknot.core.strength import measure
from newknot.usecases.check.measuring import FullMeasure, full_measure
from newknot.usecases.errors import PassphraseBreached, PassphraseTooWeak
from newknot.usecases.vault.vault_passphrase import Judgement, Verdict

PHRASE = "seven lamps over wet gravel"


def measured(guesses: float, *, breached: int = 0) -> FullMeasure:
    found = full_measure(PHRASE, vault=None, corpora=(), context=())
    of = replace(measure(PHRASE), guess_number_log10=guesses)
    return replace(found, measure=of, breached_count=breached)


@pytest.mark.parametrize(
    ("guesses", "verdict"),
    [
        (9.99, Verdict.REFUSED),
        (10.0, Verdict.WARNED),
        (13.99, Verdict.WARNED),
        (14.0, Verdict.GOOD),
    ],
)
def test_the_bounds_are_where_they_are_said_to_be(guesses: float, verdict: Verdict) -> None:
    judged = Judgement(measured(guesses))
    assert judged.verdict is verdict
    if verdict is Verdict.REFUSED:
        with pytest.raises(PassphraseTooWeak):
            judged.require_allowed()
    else:
        judged.require_allowed()


def test_one_in_a_breach_is_refused_however_strong() -> None:
    judged = Judgement(measured(30.0, breached=2))
    assert judged.verdict is Verdict.REFUSED
    with pytest.raises(PassphraseBreached):
        judged.require_allowed()
