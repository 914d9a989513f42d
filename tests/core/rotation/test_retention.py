"""Which earlier secrets may be let go."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

from hypothesis import given
from hypothesis import strategies as st

from newknot.core.login import EarlierSecret, Origin
from newknot.core.rotation.retention import past_retention
from newknot.core.secret import Secret

NOW = datetime(2026, 5, 3, 12, tzinfo=UTC)


def ended(i: int, days: int, *, used: bool = True, field: str = "") -> EarlierSecret:
    at = NOW - timedelta(days=days)
    return EarlierSecret(str(i), Secret(f"s{i}"), Origin("own"), at, at, used, field)


@given(
    st.lists(st.tuples(st.integers(0, 400), st.booleans())), st.integers(0, 300), st.integers(0, 6)
)
def test_the_newest_that_the_site_may_remember_and_those_in_use_stay(
    ends: list[tuple[int, bool]], keep_days: int, depth: int
) -> None:
    history = [ended(i, days, used=used) for i, (days, used) in enumerate(ends)]
    held = {"0"}
    past = past_retention(history, keep_days=keep_days, history_depth=depth, held=held, now=NOW)
    assert keep_days or not past
    stays = [e for e in history if e not in past]
    assert all(NOW - e.until_at > timedelta(days=keep_days) for e in past)
    assert "0" not in {e.earlier_id for e in past}
    served = sorted((e.until_at for e in history if e.used), reverse=True)
    kept = sorted((e.until_at for e in stays if e.used), reverse=True)
    assert kept[:depth] == served[:depth]


def test_fields_and_secrets_that_never_served_go_by_their_age_alone() -> None:
    history = [ended(1, 90, used=False), ended(2, 90, field="PIN"), ended(3, 90), ended(4, 10)]
    past = past_retention(history, keep_days=30, history_depth=5, held=(), now=NOW)
    assert [e.earlier_id for e in past] == ["1", "2"]


def test_what_another_copy_had_stays_until_it_is_settled() -> None:
    parted = replace(ended(1, 90), parted=True)
    for one, past in ((parted, ()), (replace(parted, parted=False), ("1",))):
        found = past_retention([one], keep_days=30, history_depth=0, held=(), now=NOW)
        assert tuple(e.earlier_id for e in found) == past
