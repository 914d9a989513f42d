"""The states of a rotation as a table: state -> event -> next state."""

from enum import StrEnum

from newknot.core.errors import NewKnotError


class RotationState(StrEnum):
    """Where a rotation stands; every state is on disk before its effect is shown."""

    PLANNED = "planned"
    STAGED = "staged"
    AT_SITE = "at_site"
    UNSURE = "unsure"
    REFUSED = "refused"
    ACCEPTED = "accepted"
    VERIFIED = "verified"
    GIVEN_UP = "given_up"


class RotationEvent(StrEnum):
    """What the user does, or what the site answered."""

    STAGE = "stage"
    HAND_OUT = "hand_out"
    ACCEPT = "accept"
    REFUSE = "refuse"
    DOUBT = "doubt"
    WITHDRAW = "withdraw"
    VERIFY = "verify"
    GIVE_UP = "give_up"


S, E = RotationState, RotationEvent

TRANSITIONS: dict[RotationState, dict[RotationEvent, RotationState]] = {
    S.PLANNED: {E.STAGE: S.STAGED, E.GIVE_UP: S.GIVEN_UP},
    S.STAGED: {
        E.STAGE: S.STAGED,
        E.HAND_OUT: S.AT_SITE,
        E.GIVE_UP: S.GIVEN_UP,
    },
    S.AT_SITE: {
        E.HAND_OUT: S.AT_SITE,
        E.ACCEPT: S.ACCEPTED,
        E.REFUSE: S.REFUSED,
        E.DOUBT: S.UNSURE,
        E.GIVE_UP: S.GIVEN_UP,
    },
    S.UNSURE: {E.HAND_OUT: S.UNSURE, E.ACCEPT: S.ACCEPTED, E.REFUSE: S.REFUSED},
    S.REFUSED: {E.STAGE: S.STAGED, E.GIVE_UP: S.GIVEN_UP},
    S.ACCEPTED: {E.WITHDRAW: S.UNSURE, E.VERIFY: S.VERIFIED},
    S.VERIFIED: {},
    S.GIVEN_UP: {},
}

OPEN_STATES = frozenset(state for state, row in TRANSITIONS.items() if row)


class EventRefused(NewKnotError):
    """An event that the present state does not know. data: state, event."""


def after(state: RotationState, event: RotationEvent) -> RotationState:
    """The next state. Raises `EventRefused` where the table has none; nothing changes then."""
    try:
        return TRANSITIONS[state][event]
    except KeyError:
        raise EventRefused(state=state.value, event=event.value) from None
