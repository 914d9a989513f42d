"""What a rotation holds does not print itself."""

from datetime import UTC, datetime

from newknot.core.login import Origin
from newknot.core.rotation import HeldSecret, RotationSecrets
from newknot.core.secret import Secret


def test_no_secret_shows_in_a_representation() -> None:
    held = HeldSecret(Secret("cue-to-cue-19"), Origin("own"), datetime(2026, 11, 28, tzinfo=UTC))
    assert "cue-to-cue" not in repr(RotationSecrets(held, held)) + str(held.secret)
