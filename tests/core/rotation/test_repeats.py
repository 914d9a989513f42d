"""A new secret is refused where it repeats what the site has seen of this login."""

from datetime import UTC, datetime, timedelta

import pytest

from newknot.core.login import EarlierSecret, Origin
from newknot.core.rotation import SecretRepeats, require_new
from newknot.core.rotation.repeats import require_forgotten
from newknot.core.secret import Secret

AT = datetime(2026, 11, 25, tzinfo=UTC)


def earlier(text: str, *, used: bool = True, field: str = "") -> EarlierSecret:
    since = AT - timedelta(days=9)
    return EarlierSecret("e", Secret(text), Origin("own"), since, AT, used=used, field=field)


@pytest.mark.parametrize(
    ("secret", "how", "ended"),
    [
        ("Barndoor2024", "same", False),
        ("Barndoor2025", "similar", False),
        ("b4rndoor!", "similar", False),
        ("winter-lantern", "same", True),
        ("Winter Lantern 7", "similar", True),
    ],
)
def test_what_repeats_is_refused_and_said_how(secret: str, how: str, ended: bool) -> None:
    history = [earlier("winter-lantern"), earlier("cue-sheet", used=False)]
    with pytest.raises(SecretRepeats) as caught:
        require_new(Secret(secret), Secret("Barndoor2024"), history, also_like=True)
    assert caught.value.data == {"how": how, "until_at": AT.isoformat() if ended else None}


@pytest.mark.parametrize("secret", ["cue-sheet", "the answer", "kV!8q-Lz3#Rw0pXt_2mB"])
def test_what_the_site_has_not_seen_is_taken(secret: str) -> None:
    history = [earlier("cue-sheet", used=False), earlier("the answer", field="answer")]
    require_new(Secret(secret), Secret("Barndoor2024"), history, also_like=True)


def test_of_a_draw_only_the_very_same_is_refused() -> None:
    require_new(Secret("Barndoor2025"), Secret("Barndoor2024"), [], also_like=False)
    with pytest.raises(SecretRepeats):
        require_new(Secret("Barndoor2024"), Secret("Barndoor2024"), [], also_like=False)


def test_what_the_site_remembers_is_refused_and_no_more() -> None:
    history = [earlier("first"), earlier("staged", used=False), earlier("codes", field="pin")]
    require_forgotten(Secret("first"), history, depth=0)
    for unseen in ("staged", "codes", "another"):
        require_forgotten(Secret(unseen), history, depth=9)
    with pytest.raises(SecretRepeats) as caught:
        require_forgotten(Secret("first"), history, depth=1)
    assert caught.value.data == {"how": "remembered", "until_at": AT.isoformat(), "depth": 1}
    # A login that has no secret yet repeats none.
    require_new(Secret("first"), Secret(""), [], also_like=True)
