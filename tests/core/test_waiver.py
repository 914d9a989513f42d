"""A waiver covers what was accepted, and nothing that came later."""

from dataclasses import replace
from datetime import UTC, date, datetime, timedelta

import pytest

from newknot.core.audit import Finding, FindingKind
from newknot.core.audit.waiver import Waiver, WaiverReason

NOW = datetime(2026, 11, 25, 12, tzinfo=UTC)
TODAY = NOW.date()
SINCE = NOW - timedelta(days=400)
K = FindingKind


def waived(finding: Finding, **more: object) -> Waiver:
    given = Waiver(
        waiver_id="w",
        login_id=finding.login_id,
        kind=finding.kind,
        reason=WaiverReason.CANNOT,
        note="",
        given_at=NOW - timedelta(days=10),
        until_on=None,
        evidence=finding.evidence,
        others=frozenset(finding.others),
        basis=finding.basis,
        guess_number_log10=finding.guess_number_log10,
    )
    return replace(given, **more)  # type: ignore[arg-type]


REUSED = Finding(K.REUSED, "a", "Same as B and 1 other", ("a", "b", "c"))
LARGE = replace(REUSED, others=tuple(map(str, range(50))), evidence="Same as B and 90 others")
BREACHED = Finding(K.BREACHED, "a", "In the corpus, 2 times (list of May 2026)")
AGED = "Site asks for a change every 90 days: {} days over"
OVERDUE = Finding(K.OVERDUE, "a", AGED.format(10), basis="every 90 days")
EXPIRED = Finding(K.OVERDUE, "a", "Expired on 1 November 2026, a day you set", basis="2026-11-01")
WEAK = Finding(K.WEAK, "a", "A word: falls at the sign-in form itself", guess_number_log10=5.5)
OPEN = Finding(K.UNFINISHED, "a", "New secret staged on 1 November", basis="rotation 1")


@pytest.mark.parametrize(
    ("accepted", "later"),
    [
        (REUSED, REUSED),
        (REUSED, replace(REUSED, others=("a", "b"), evidence="Same as B")),
        (BREACHED, BREACHED),
        (OVERDUE, replace(OVERDUE, evidence=AGED.format(44))),
        (WEAK, replace(WEAK, guess_number_log10=4.6, evidence="Another sentence of it")),
        (WEAK, replace(WEAK, guess_number_log10=9.0)),
        (OPEN, OPEN),
        # Of a large group, whoever it is named by: that is as large, or smaller.
        (LARGE, replace(LARGE, evidence="Same as C and 90 others, since May 2026")),
        (LARGE, replace(LARGE, others=tuple("xyz"), evidence="Same as X and 1 other")),
        # One from before what it rests on was kept.
        (replace(OVERDUE, basis=""), OVERDUE),
    ],
)
def test_it_covers_the_same_and_what_became_less(accepted: Finding, later: Finding) -> None:
    assert waived(accepted).covers(later, secret_since_at=SINCE, today=TODAY)


@pytest.mark.parametrize(
    ("accepted", "later"),
    [
        (REUSED, replace(REUSED, others=("a", "b", "c", "d"))),
        (REUSED, replace(REUSED, kind=K.SIMILAR)),
        (OVERDUE, EXPIRED),
        (OVERDUE, replace(OVERDUE, basis="every 30 days")),
        (EXPIRED, replace(EXPIRED, basis="2026-11-20")),
        (WEAK, replace(WEAK, guess_number_log10=4.4)),
        (OPEN, replace(OPEN, basis="rotation 2")),
        (REUSED, replace(REUSED, login_id="b")),
        (BREACHED, replace(BREACHED, evidence="In the corpus, 9 times (list of May 2026)")),
        (BREACHED, replace(BREACHED, evidence="In the corpus, 2 times (list of June 2026)")),
        (LARGE, replace(LARGE, evidence="Same as B and 91 others")),
    ],
)
def test_another_kind_a_grown_group_or_a_later_breach_shows(
    accepted: Finding, later: Finding
) -> None:
    assert not waived(accepted).covers(later, secret_since_at=SINCE, today=TODAY)


@pytest.mark.parametrize("kind", [K.PLAIN_HTTP, K.NO_SECOND_FACTOR])
def test_what_a_new_secret_does_not_settle_stays_accepted_with_it(kind: FindingKind) -> None:
    found = Finding(kind, "a", "It is so", guess_number_log10=20.0)
    later = replace(found, guess_number_log10=5.0)
    assert waived(found).covers(later, secret_since_at=NOW, today=TODAY)


def test_a_new_secret_a_past_day_or_taking_it_back_ends_it() -> None:
    given = waived(OVERDUE)
    assert not given.covers(OVERDUE, secret_since_at=NOW, today=TODAY)
    for ended in (
        replace(given, lifted_at=NOW),
        replace(given, until_on=TODAY - timedelta(days=1)),
    ):
        assert not ended.covers(OVERDUE, secret_since_at=SINCE, today=TODAY)
    until = replace(given, until_on=date(2026, 11, 25))
    assert until.covers(OVERDUE, secret_since_at=SINCE, today=TODAY)
