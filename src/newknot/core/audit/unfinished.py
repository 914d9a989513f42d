"""Unfinished: a rotation left open."""

from collections.abc import Iterator, Mapping, Sequence

from newknot.core.audit.audited import AuditedRotation
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.calendar_day import day_of

_SAYS = {
    "planned": "Rotation begun on {day}, no new secret yet",
    "staged": "New secret staged on {day}, not yet taken to the site",
    "at_site": "Rotation left at the site on {day}: did it take the new secret?",
    "unsure": "Not sure since {day} which secret holds: both are kept",
    "refused": "The site refused the new secret on {day}: draw another",
    "accepted": "Changed on {day}, not yet signed in with the new secret",
}


def unfinished(
    guess_numbers: Mapping[str, float | None], rotations: Sequence[AuditedRotation]
) -> Iterator[Finding]:
    """One finding for each open rotation of a login that is known by its guess number, or None."""
    for rotation in rotations:
        if rotation.login_id in guess_numbers:
            yield Finding(
                FindingKind.UNFINISHED,
                rotation.login_id,
                _SAYS[rotation.state].format(day=f"{day_of(rotation.changed_at):%-d %B}"),
                guess_number_log10=guess_numbers[rotation.login_id],
                basis=rotation.rotation_id,
            )
