"""Driven rotation: New Knot fills the site's own forms, through the same states as by hand.

What is sent is noted before it is sent; anything unexpected after that stops at "not sure" with
both secrets kept, and before it leaves everything as it was.
"""

import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from string import ascii_letters, digits

from newknot.core.address import site_of
from newknot.core.generate import RandomSource, conflicts
from newknot.core.login import LoginCard
from newknot.core.policy import SitePolicy
from newknot.core.rotation import EventRefused, Rotation, RotationEvent, RotationState
from newknot.core.rotation.echo import without_echo
from newknot.core.rotation.silent_faults import SilentFaults, Tried, next_trial, told
from newknot.core.rotation.site_form import FormNotUnderstood
from newknot.core.rotation.way_on import WayOnTrial
from newknot.core.secret import Secret
from newknot.outside.driven_site import DrivenSite, PagesRead, Visited
from newknot.outside.page_rules import read_page_rules
from newknot.outside.reaching import OutsideFailed
from newknot.store.logins import get_secrets
from newknot.store.rotations import get_rotation, get_rotation_secrets
from newknot.store.vault import Vault
from newknot.usecases.clock import Clock
from newknot.usecases.errors import DriveOff, NothingHeld
from newknot.usecases.logins.logins import live_card
from newknot.usecases.logins.second_factors import current_code
from newknot.usecases.policies import policy_for, save_policy
from newknot.usecases.rotation.rotations import StageWish, hand_out, stage_again, take_event
from newknot.usecases.rotation.site_faults import SiteWorth, learn_faults, site_worth
from newknot.usecases.rotation.way_on import held_of, next_of, opened, trial_text

TIME_S, ASKING_S = 180.0, 8.0
"""A drive shows its steps and can be stopped: the limit is for a site that never ends."""
_NEVER_RIGHT, WRONG_LENGTH = ascii_letters + digits, 20
DRIVABLE = (RotationState.STAGED, RotationState.REFUSED)


@dataclass(slots=True)
class Drive:
    """One drive as it goes. steps: what was done so far, in words; outcome: empty while it runs."""

    steps: list[str] = field(default_factory=list)
    outcome: str = ""
    is_stopped: bool = False

    def stop(self) -> None:
        """Asks it to leave the site."""
        self.is_stopped = True

    def says(self, step: str) -> None:
        """Notes a step."""
        self.steps.append(step)


def plan_of(card: LoginCard) -> list[str]:
    """What would be done, in order, before anything is."""
    site = site_of(card.address)
    where = " or ".join(
        one.removeprefix("https://")
        for one in ((site.origin if site is not None else "the site"), *card.driven_at)
    )
    return [
        f"open the change page of {where}, and nothing outside of it",
        f"sign in as {card.user_name or 'this login'} with the current secret",
        "read the rules of its form, and draw the new secret to them",
        "note that the new secret is sent, then send the form",
        "sign in afresh with a secret that cannot be right, to see that it is turned away: "
        "one wrong sign-in",
        "sign in afresh with the new secret; where it fails, with the old one",
        "three sign-ins in all, four where the new secret fails; one of them wrong",
    ]


def change_address(vault: Vault, rotation_id: str, *, own_port: int) -> str:
    """Where the site changes passwords, asked of it. Raises `DriveOff` where it may not be asked,
    `OutsideFailed`, `FormNotUnderstood`.
    """
    card = live_card(vault, get_rotation(vault, rotation_id).login_id)
    if not card.driven:
        raise DriveOff()
    until_s = time.monotonic() + ASKING_S
    visit = DrivenSite(
        card.address,
        own_port=own_port,
        may_go_on=lambda: True,
        until_s=until_s,
        also=card.driven_at,
    )
    try:
        return visit.change_address()
    finally:
        visit.close()


class Driver:
    """Drives one rotation at its site."""

    def __init__(
        self,
        vault: Vault,
        rotation_id: str,
        drive: Drive,
        *,
        random: RandomSource,
        clock: Clock,
        own_port: int,
    ) -> None:
        self._vault = vault
        self._rotation_id = rotation_id
        self._drive = drive
        self._random = random
        self._clock = clock
        self._own_port = own_port
        self._until_s = time.monotonic() + TIME_S
        self._read = PagesRead()
        rotation = get_rotation(vault, rotation_id)
        self._card = live_card(vault, rotation.login_id)
        if not self._card.driven:
            raise DriveOff()

    def run(self) -> Rotation:
        """To the end, or to where it stops; the rotation says where it stands then.

        Raises `DriveOff`, `NothingHeld`, `EventRefused`.
        """
        rotation = get_rotation(self._vault, self._rotation_id)
        current = get_secrets(self._vault, rotation.login_id).secret
        if not len(current):
            raise NothingHeld()
        if rotation.state not in DRIVABLE:
            raise EventRefused(state=rotation.state.value, event=RotationEvent.HAND_OUT.value)
        visit = self._visit()
        try:
            try:
                page = self._signed_in(visit, current)
                self._learn(page)
                visit.require_sendable(page, has_code=self._code() is not None)
                rotation, new = hand_out(self._vault, self._rotation_id, now=self._now())
            except (OutsideFailed, FormNotUnderstood) as error:
                self._drive.says(
                    f"stopped before anything was changed: the site {error.data['reason']}"
                )
                self._drive.outcome = "stopped"
                return get_rotation(self._vault, self._rotation_id)
            self._drive.says("noted that the new secret is sent, and sent it")
            return self._change(visit, page, current, new)
        finally:
            visit.close()
            self._drive.outcome = self._drive.outcome or "ended"

    def _change(self, visit: DrivenSite, page: Visited, current: Secret, new: Secret) -> Rotation:
        """From here on the site may have changed: what is not known for sure is "not sure"."""
        name = self._card.user_name
        try:
            answer = visit.change(page, name, current.reveal(), new.reveal(), self._code())
            said = without_echo(" ".join(answer.page.said), (new, current))[:300]
            if said:
                self._drive.says(f"the site says: “{said}”")
            if not self._turns_away():
                self._drive.says("it lets in a secret that cannot be right, so nothing is verified")
                return self._event(RotationEvent.DOUBT)
            self._drive.says("it turned away a secret that cannot be right")
            if self._opens(new):
                self._drive.says("signed in afresh with the new secret")
                self._event(RotationEvent.ACCEPT)
                return self._event(RotationEvent.VERIFY)
            self._drive.says("the new secret does not open it")
            refused = answer.status >= 400 and answer.page.change_form is not None
            if self._opens(current) and refused:
                self._drive.says("the old one does: the site refused the change")
                return self._event(RotationEvent.REFUSE, refusal=said)
            self._drive.says("so it is not sure which secret holds: both are kept")
        except (OutsideFailed, FormNotUnderstood) as error:
            self._drive.says(f"the site {error.data['reason']}: both secrets are kept")
        return self._event(RotationEvent.DOUBT)

    def _visit(self) -> DrivenSite:
        return DrivenSite(
            self._card.address,
            own_port=self._own_port,
            may_go_on=lambda: not self._drive.is_stopped,
            until_s=self._until_s,
            also=self._card.driven_at,
            read=self._read,
        )

    def _signed_in(self, visit: DrivenSite, current: Secret) -> Visited:
        page = visit.change_page()
        self._drive.says(f"opened {page.address.partition('?')[0]}")
        if page.page.change_form is not None:
            raise FormNotUnderstood(
                reason="shows its change form without a sign-in, so none could be told by it"
            )
        visit.sign_in(page, self._card.user_name, current.reveal(), self._code())
        page = visit.change_page()
        if page.page.change_form is None:
            raise FormNotUnderstood(reason="did not let in with the current secret")
        self._drive.says("signed in with the current secret")
        return page

    def _learn(self, page: Visited) -> None:
        """Draws to the rules of the form and of the site, as far as each is known; where nothing is
        known of the site, its policy learns those of the form.
        """
        form = page.page.change_form
        assert form is not None
        rotation = get_rotation(self._vault, self._rotation_id)
        read = _read_rules(form.rules_text)
        with self._vault.transaction():
            # Another drive of the same site may have learned them meanwhile.
            named = policy_for(self._vault, self._card.address)
            if named is None and read is not None:
                self._save(read)
        known = [p for p in (read, named.policy if named is not None else None) if p is not None]
        held = get_rotation_secrets(self._vault, self._rotation_id).staged
        if rotation.state is RotationState.REFUSED or held is None or _breaks(known, held.secret):
            wish = StageWish(policy=known[0] if known else None)
            now = self._now()
            stage_again(self._vault, self._rotation_id, wish, random=self._random, now=now)
            fresh = get_rotation_secrets(self._vault, self._rotation_id).staged
            if fresh is None or _breaks(known, fresh.secret):
                raise FormNotUnderstood(reason="has a form whose rules are not those of its policy")
            self._drive.says("drew a new secret to the rules of its form")

    def _save(self, policy: SitePolicy) -> None:
        site = site_of(self._card.address)
        assert site is not None
        save_policy(
            self._vault,
            policy_id=None,
            name=self._card.title,
            domains=(site.domain,),
            policy=policy,
            source="form",
            now=self._now(),
        )
        self._drive.says("learned the rules of its form")

    def _opens(self, secret: Secret) -> bool:
        """Whether a secret opens the site, in a visit of its own."""
        visit = self._visit()
        try:
            return visit.signs_in(self._card.user_name, secret.reveal(), self._code())
        finally:
            visit.close()

    def _turns_away(self) -> bool:
        """Whether the site tells a wrong secret: one that was drawn for this and is not like any,
        tried once and without a code.
        """
        letters = len(_NEVER_RIGHT)
        wrong = "".join(_NEVER_RIGHT[self._random.randbelow(letters)] for _ in range(WRONG_LENGTH))
        visit = self._visit()
        try:
            return visit.turns_away(self._card.user_name, wrong)
        finally:
            visit.close()

    def _code(self) -> Callable[[], str] | None:
        if not self._card.second_factor.has_codes:
            return None
        return lambda: current_code(self._vault, self._card.login_id, now=self._now()).code

    def _event(self, event: RotationEvent, *, refusal: str = "") -> Rotation:
        return take_event(self._vault, self._rotation_id, event, refusal=refusal, now=self._now())

    def _now(self) -> datetime:
        return self._clock.now()

    def look_for_faults(self) -> tuple[SilentFaults, SiteWorth]:
        """Tries by sign-ins what the site does to the secret in silence; its policy learns it.

        Raises `OutsideFailed`, `FormNotUnderstood` at any sign of throttling.
        """
        if not self._turns_away():
            raise FormNotUnderstood(reason="lets in a secret that cannot be right")
        text = get_secrets(self._vault, self._card.login_id).secret.reveal()
        tried: list[Tried] = []
        while (trial := next_trial(text, tried)) is not None:
            tried.append(Tried(trial, self._opens(Secret(trial.of(text)))))
        faults = told(text, tried)
        if faults.keeps_first is None:
            self._drive.says("does not take it without its end")
        else:
            bound = "" if faults.is_exact else "at most "
            self._drive.says(f"keeps {bound}the first {faults.keeps_first} characters")
        folds = faults.folds_case
        self._drive.says("takes it in other case too" if folds else "tells its case apart")
        policy = learn_faults(self._vault, self._card, text, faults, now=self._now())
        return faults, site_worth(self._vault, self._card, text, policy)

    def find_which(self, refused: list[WayOnTrial], at_most: int) -> WayOnTrial | None:
        """After "not sure": tries which secret opens the site, and notes it; None where none does.

        refused: what did not open it so far, to which these tries are added. at_most: how many
        are tried now.

        Raises `OutsideFailed`, `FormNotUnderstood` at any sign of throttling, `EventRefused`.
        """
        held = held_of(self._vault, self._rotation_id)
        if not self._turns_away():
            raise FormNotUnderstood(reason="lets in a secret that cannot be right")
        before = len(refused)
        while len(refused) - before < at_most:
            if (trial := next_of(held, refused)) is None:
                return None
            if self._opens(trial_text(held, trial)):
                self._drive.says(f"signed in afresh with {trial.says}")
                opened(self._vault, self._rotation_id, trial, now=self._now())
                return trial
            self._drive.says(f"{trial.says} does not open it")
            refused.append(trial)
        return None


def _read_rules(rules_text: str) -> SitePolicy | None:
    """The policy that a form states; None where it states none, or one that contradicts itself."""
    if "maxlength" not in rules_text:
        return None
    policy = read_page_rules(rules_text)
    return None if policy is None or conflicts(policy) is not None else policy


def _breaks(policies: Sequence[SitePolicy], secret: Secret) -> bool:
    return any(policy.violations(secret.reveal()) for policy in policies)
