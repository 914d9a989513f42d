"""The whole product of states and events."""

import itertools

import pytest

from newknot.core.rotation import (
    OPEN_STATES,
    TRANSITIONS,
    EventRefused,
    RotationEvent,
    RotationState,
    after,
)


@pytest.mark.parametrize(("state", "event"), list(itertools.product(RotationState, RotationEvent)))
def test_each_event_leads_where_the_table_says_or_is_refused(
    state: RotationState, event: RotationEvent
) -> None:
    expected = TRANSITIONS[state].get(event)
    if expected is None:
        with pytest.raises(EventRefused):
            after(state, event)
    else:
        assert after(state, event) is expected


def test_only_an_accepted_secret_can_be_verified_and_ends_have_no_way_on() -> None:
    into_verified = {s for s, row in TRANSITIONS.items() if RotationState.VERIFIED in row.values()}
    assert into_verified == {RotationState.ACCEPTED}
    assert set(RotationState) - OPEN_STATES == {RotationState.VERIFIED, RotationState.GIVEN_UP}


def test_every_state_is_reached_from_the_first() -> None:
    seen, edge = {RotationState.PLANNED}, {RotationState.PLANNED}
    while edge:
        edge = {n for s in edge for n in TRANSITIONS[s].values()} - seen
        seen |= edge
    assert seen == set(RotationState)


def test_a_doubtful_rotation_cannot_be_given_up_with_a_live_secret_in_it() -> None:
    assert RotationEvent.GIVE_UP not in TRANSITIONS[RotationState.UNSURE]
    assert RotationEvent.GIVE_UP not in TRANSITIONS[RotationState.ACCEPTED]
