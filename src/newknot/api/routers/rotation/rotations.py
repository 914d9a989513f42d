"""Rotations: begin, stage, hand out, and what the site said."""

from collections.abc import Sequence
from typing import Annotated

from fastapi import APIRouter, Body, Response

from newknot.api.deps import Work, WorkDep
from newknot.api.schemas.drawing.draws import SecretOut
from newknot.api.schemas.logins.logins import RevealIn
from newknot.api.schemas.rotation.rotations import (
    BeginIn,
    ChangePageOut,
    DriveOut,
    EventIn,
    FaultsOut,
    HandedOut,
    LessonIn,
    RotationOut,
    StageIn,
    StandingOut,
    StepOut,
    TrialIn,
    TrialShape,
    TriedList,
    WayOnAnswers,
    WayOnDrive,
    WayOnIn,
    WayOnOut,
    WayOnShape,
)
from newknot.api.shaping import new_secret_of
from newknot.core.policy import Lesson, SitePolicy
from newknot.core.rotation import (
    OPEN_STATES,
    TRANSITIONS,
    Rotation,
    RotationEvent,
)
from newknot.core.rotation.due import is_stalled
from newknot.core.rotation.silent_faults import SilentFaults, Trial, Tried
from newknot.core.rotation.way_on import WayOnTrial
from newknot.core.safeguards import Act
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.logins import get_card
from newknot.store.rotations import get_rotation_secrets
from newknot.usecases.errors import DriveRunning
from newknot.usecases.rotation import refusals, site_faults
from newknot.usecases.rotation import rotations as use
from newknot.usecases.rotation import way_on as finding
from newknot.usecases.rotation.driving import DRIVABLE, Drive, Driver, change_address, plan_of

router = APIRouter(prefix="/rotations", tags=["rotation"])


@router.get("")
def list_rotations(work: WorkDep) -> list[RotationOut]:
    """All rotations, newest first, without secrets."""
    out: list[RotationOut] = []
    for rotation in use.list_rotations(work.vault):
        try:
            out.append(_shaped(work, rotation, with_staged=False))
        except (RecordDamaged, RecordMissing):
            # Of the login that cannot be read: told of with the logins, and stops no other.
            continue
    return out


@router.post("", status_code=201)
def begin(body: BeginIn, work: WorkDep) -> RotationOut:
    """A rotation with its new secret sealed as staged; the open one where there is one."""
    work.require(Act.EDIT)
    rotation = use.begin_rotation(
        work.vault,
        body.login_id,
        _wish(body, work, body.earlier_id),
        random=work.keeper.random,
        now=work.now,
    )
    return _shaped(work, rotation)


@router.get("/{rotation_id}")
def one_rotation(rotation_id: str, work: WorkDep) -> RotationOut:
    """One rotation as it stands."""
    return _shaped(work, use.get_rotation(work.vault, rotation_id))


@router.post("/{rotation_id}/stage")
def stage_again(rotation_id: str, body: StageIn, work: WorkDep) -> RotationOut:
    """Another new secret; the one before goes to the history, marked never used."""
    rotation = use.stage_again(
        work.vault, rotation_id, _wish(body, work), random=work.keeper.random, now=work.now
    )
    return _shaped(work, rotation)


@router.post("/{rotation_id}/hand-out")
def hand_out(rotation_id: str, body: RevealIn, work: WorkDep) -> HandedOut:
    """The new secret, once it is noted that it goes out."""
    work.allow(body.purpose)
    rotation, secret = use.hand_out(work.vault, rotation_id, now=work.now)
    work.given("new secret", body.purpose, rotation.login_id)
    return HandedOut(secret=secret.reveal(), rotation=_shaped(work, rotation))


@router.post("/{rotation_id}/current")
def current(rotation_id: str, body: RevealIn, work: WorkDep) -> HandedOut:
    """The login's current secret, for the site's change form."""
    work.allow(body.purpose)
    rotation, secret = use.current_of(work.vault, rotation_id, now=work.now)
    work.given("secret", body.purpose, rotation.login_id)
    return HandedOut(secret=secret.reveal(), rotation=_shaped(work, rotation))


@router.post("/{rotation_id}/former")
def former(rotation_id: str, body: RevealIn, work: WorkDep) -> SecretOut:
    """The old secret, one key away until the new one is verified."""
    work.allow(body.purpose)
    found = use.former_of(work.vault, rotation_id)
    work.given("former secret", body.purpose, use.login_of(work.vault, rotation_id))
    return SecretOut(secret=found.reveal())


@router.post("/{rotation_id}/events")
def take_event(rotation_id: str, body: EventIn, work: WorkDep) -> RotationOut:
    """What the site answered, or what the user decided."""
    event = RotationEvent(body.event)
    rotation = use.take_event(work.vault, rotation_id, event, refusal=body.refusal, now=work.now)
    return _shaped(work, rotation)


@router.post("/{rotation_id}/lesson")
def learn_refusal(rotation_id: str, body: LessonIn, work: WorkDep) -> RotationOut:
    """The site refused, and said why: its policy learns it, and another secret is staged."""
    lesson = Lesson(body.kind, body.length, body.text)
    rotation, _ = refusals.learn_refusal(
        work.vault, rotation_id, lesson, random=work.keeper.random, now=work.now
    )
    return _shaped(work, rotation)


@router.get("/{rotation_id}/drive")
def drive_plan(rotation_id: str, work: WorkDep) -> DriveOut:
    """What driving this rotation would do, or how far it is."""
    return _drive_out(work, use.get_rotation(work.vault, rotation_id))


@router.post("/{rotation_id}/change-page")
def change_page(rotation_id: str, work: WorkDep) -> ChangePageOut:
    """Where the site changes passwords, asked of it where its login is switched on for that."""
    return ChangePageOut(address=change_address(work.vault, rotation_id, own_port=work.port))


@router.post("/{rotation_id}/drive")
def drive(rotation_id: str, work: WorkDep) -> DriveOut:
    """Lets New Knot change the secret at the site; answers at the end, or where it stopped."""
    work.require(Act.EDIT)
    driver = _driver(rotation_id, work)
    return _drive_out(work, driver.run())


@router.post("/{rotation_id}/drive/stop", status_code=204)
def stop_drive(rotation_id: str, work: WorkDep) -> Response:
    """Asks the drive to leave the site."""
    rotation = use.get_rotation(work.vault, rotation_id)
    held = work.keeper.drives.get(rotation.rotation_id)
    if held is not None:
        held.stop()
    return Response(status_code=204)


@router.post("/{rotation_id}/faults")
def look_for_faults(rotation_id: str, work: WorkDep) -> FaultsOut:
    """Tries by sign-ins whether the site cuts the secret or folds its case, and learns it."""
    work.require(Act.EDIT)
    driver = _driver(rotation_id, work)
    held = work.keeper.drives[rotation_id]
    try:
        faults, worth = driver.look_for_faults()
    finally:
        held.outcome = "ended"
    return _faults_out(faults, worth, held.steps)


@router.post("/{rotation_id}/trials")
def next_trial(rotation_id: str, body: TriedList, work: WorkDep) -> StandingOut:
    """The next sign-in by which the user finds silent faults; at the end what they are."""
    tried = [Tried(Trial(t.characters, t.other_case), t.opened) for t in body.tried]
    standing = site_faults.go_on(work.vault, rotation_id, tried, now=work.now)
    trial = standing.trial
    return StandingOut(
        trial=None
        if trial is None
        else TrialShape(characters=trial.characters, other_case=trial.other_case),
        faults=None if standing.worth is None else _faults_out(standing.faults, standing.worth, ()),
    )


@router.post("/{rotation_id}/trials/secret")
def trial_secret(rotation_id: str, body: TrialIn, work: WorkDep) -> SecretOut:
    """What is to be typed for a trial."""
    work.allow(body.purpose)
    trial = Trial(body.characters, body.other_case)
    found = site_faults.trial_secret(work.vault, rotation_id, trial)
    work.given("new secret as tried", body.purpose, use.login_of(work.vault, rotation_id))
    return SecretOut(secret=found.reveal())


@router.post("/{rotation_id}/way-on")
def way_on(rotation_id: str, body: WayOnAnswers, work: WorkDep) -> WayOnOut:
    """After "not sure": the next sign-in to try; what opened the site is noted."""
    if body.opened is not None:
        work.require(Act.EDIT)
        trial = _trial(body.opened)
        finding.opened(work.vault, rotation_id, trial, now=work.now)
        return _way_on_out(work, rotation_id, None, trial)
    held = finding.held_of(work.vault, rotation_id)
    refused = [_trial(one) for one in body.refused]
    return _way_on_out(work, rotation_id, finding.next_of(held, refused), None)


@router.post("/{rotation_id}/way-on/secret")
def way_on_secret(rotation_id: str, body: WayOnIn, work: WorkDep) -> SecretOut:
    """What is to be typed for a trial."""
    work.allow(body.purpose)
    held = finding.held_of(work.vault, rotation_id)
    found = finding.trial_text(held, _trial(body))
    work.given("secret as tried", body.purpose, held.card.login_id)
    return SecretOut(secret=found.reveal())


@router.post("/{rotation_id}/way-on/drive")
def drive_way_on(
    rotation_id: str, work: WorkDep, body: Annotated[WayOnDrive | None, Body()] = None
) -> WayOnOut:
    """The same by sign-ins of New Knot, where its login is switched on for that."""
    work.require(Act.EDIT)
    driver = _driver(rotation_id, work)
    held = work.keeper.drives[rotation_id]
    wish = body or WayOnDrive(refused=[])
    refused = [_trial(one) for one in wish.refused]
    try:
        found = driver.find_which(refused, wish.at_most)
    finally:
        held.outcome = "ended"
    left = None
    if found is None:
        left = finding.next_of(finding.held_of(work.vault, rotation_id), refused)
    return _way_on_out(work, rotation_id, left, found, held.steps, refused)


def _trial(shape: WayOnShape) -> WayOnTrial:
    return WayOnTrial(shape.which, shape.characters, shape.after)


def _way_on_out(
    work: Work,
    rotation_id: str,
    trial: WayOnTrial | None,
    found: WayOnTrial | None,
    steps: Sequence[str] = (),
    refused: Sequence[WayOnTrial] = (),
) -> WayOnOut:
    return WayOnOut(
        trial=_shape(trial) if trial else None,
        refused=[_shape(one) for one in refused],
        says=trial.says if trial else "",
        found=found.says if found else "",
        steps=list(steps),
        rotation=_shaped(work, use.get_rotation(work.vault, rotation_id)),
    )


def _shape(trial: WayOnTrial) -> WayOnShape:
    return WayOnShape(which=trial.which, characters=trial.characters, after=trial.after)


def _faults_out(
    faults: SilentFaults, worth: site_faults.SiteWorth, steps: Sequence[str]
) -> FaultsOut:
    return FaultsOut(
        steps=list(steps),
        keeps_first=faults.keeps_first,
        is_exact=faults.is_exact,
        folds_case=faults.folds_case,
        says=worth.says,
        guess_number_log10=worth.guess_number_log10,
    )


def _driver(rotation_id: str, work: Work) -> Driver:
    running = work.keeper.drives.get(rotation_id)
    if running is not None and not running.outcome:
        raise DriveRunning()
    fresh = Drive()
    driver = Driver(
        work.vault,
        rotation_id,
        fresh,
        random=work.keeper.random,
        clock=work.keeper.clock,
        own_port=work.port,
    )
    work.keeper.drives[rotation_id] = fresh
    return driver


def _drive_out(work: Work, rotation: Rotation) -> DriveOut:
    card = get_card(work.vault, rotation.login_id)
    held = work.keeper.drives.get(rotation.rotation_id)
    return DriveOut(
        allowed=card.driven and rotation.state in DRIVABLE,
        plan=plan_of(card),
        steps=list(held.steps) if held is not None else [],
        running=held is not None and not held.outcome,
        state=rotation.state,
    )


def _wish(body: StageIn, work: Work, earlier_id: str | None = None) -> use.StageWish:
    policy = SitePolicy.from_dict(body.policy) if body.policy is not None else None
    return use.StageWish(body.length, policy, new_secret_of(body.secret, work), earlier_id)


def _shaped(work: Work, rotation: Rotation, *, with_staged: bool = True) -> RotationOut:
    card = get_card(work.vault, rotation.login_id)
    held = get_rotation_secrets(work.vault, rotation.rotation_id) if with_staged else None
    staged = held.staged if held is not None else None
    handed = [s.at for s in rotation.steps if s.event is RotationEvent.HAND_OUT]
    staged_at = [s.at for s in rotation.steps if s.event is RotationEvent.STAGE]
    after_stage = [at for at in handed if not staged_at or at >= staged_at[-1]]
    return RotationOut(
        rotation_id=rotation.rotation_id,
        login_id=rotation.login_id,
        title=card.title,
        user_name=card.user_name,
        address=card.address,
        state=rotation.state,
        is_open=rotation.state in OPEN_STATES,
        is_stalled=is_stalled(rotation, work.now),
        allowed=list(TRANSITIONS[rotation.state]),
        began_at=rotation.began_at,
        changed_at=rotation.changed_at,
        refusal=rotation.refusal,
        current_copied_at=rotation.current_copied_at,
        staged_at=staged_at[-1] if staged_at else None,
        handed_out_at=after_stage[-1] if after_stage else None,
        has_former=held is not None and held.former is not None,
        has_current=card.has_secret,
        is_sign_up=rotation.is_sign_up,
        current_since_at=card.secret_since_at,
        staged_length=len(staged.secret) if staged is not None else None,
        staged_bits=staged.origin.entropy_bits if staged is not None else None,
        steps=[StepOut(event=s.event, at=s.at) for s in rotation.steps],
    )
