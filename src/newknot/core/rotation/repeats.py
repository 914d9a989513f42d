"""Whether a new secret repeats an earlier one of its login: the same, or one like it."""

from collections.abc import Sequence

from newknot.core.errors import NewKnotError
from newknot.core.login import EarlierSecret
from newknot.core.secret import Secret
from newknot.core.strength.resemblance import forms


class SecretRepeats(NewKnotError):
    """A new secret that the login had before, or one like it. data: how (same, similar,
    remembered by the site: then depth too), until_at (ISO, when the earlier one ended; None for the
    current one).
    """


class SecretBreaksPolicy(NewKnotError):
    """A new secret that the site's policy forbids. data: policy, says."""


def require_forgotten(secret: Secret, earlier: Sequence[EarlierSecret], *, depth: int) -> None:
    """Raises `SecretRepeats` (how: remembered) where it is one of the last `depth` that served."""
    served = [e for e in earlier if e.used and not e.field]
    for former in sorted(served, key=lambda e: e.place, reverse=True)[:depth]:
        if former.secret == secret:
            raise SecretRepeats(how="remembered", until_at=former.until_at.isoformat(), depth=depth)


def require_new(
    secret: Secret, current: Secret, earlier: Sequence[EarlierSecret], *, also_like: bool
) -> None:
    """Raises `SecretRepeats` where the secret is the current one or one that served, or, with
    `also_like`, is made of one.

    Those that were staged and never used have not been seen by the site, and do not count.
    """
    held: list[tuple[Secret, str | None]] = [(current, None)]
    held += [(e.secret, e.until_at.isoformat()) for e in earlier if e.used and not e.field]
    new_forms = forms(secret.reveal()) if also_like else frozenset[str]()
    for former, until_at in held:
        if not len(former):
            continue
        if former == secret:
            raise SecretRepeats(how="same", until_at=until_at)
        if new_forms and new_forms & forms(former.reveal()):
            raise SecretRepeats(how="similar", until_at=until_at)
