"""What the checks are given: the facts of each login, and of each open rotation."""

from dataclasses import dataclass
from datetime import date, datetime

from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.login import Importance, Origin, SecondFactor
from newknot.core.policy import SitePolicy
from newknot.core.secret import Secret


@dataclass(frozen=True, slots=True)
class AuditedLogin:
    """One login as the check sees it. `secret` None: it has none, or it could not be read.

    resets_by: the mailbox login that the user named for it. policy: its site's, where one is
    known. passphrase_likeness: in a sentence, how its secret resembles one of the vault's; empty
    where it does not. offers_second_factor: whether its site is known to. field: the name of the
    further secret field that `secret` is the value of; empty for the login's own. field_id: of that
    value. fields: those of the login, each as a login of its own.
    """

    login_id: str
    title: str
    user_name: str
    address: str
    importance: Importance
    expires_on: date | None
    max_age_days: int | None
    secret: Secret | None
    origin: Origin
    secret_since_at: datetime
    resets_by: str | None = None
    policy: SitePolicy | None = None
    policy_name: str = ""
    passphrase_likeness: str = ""
    second_factor: SecondFactor = SecondFactor.NONE
    offers_second_factor: bool = False
    field: str = ""
    field_id: str = ""
    fields: "tuple[AuditedLogin, ...]" = ()


@dataclass(frozen=True, slots=True)
class AuditedRotation:
    """An open rotation: its login, its state in words, its last step, and which one it is."""

    login_id: str
    state: str
    changed_at: datetime
    rotation_id: str = ""


@dataclass(frozen=True, slots=True)
class Measured:
    """A login with its guess number, and what gives it in words unless it was drawn.

    failed: it has a secret to be measured, and the measure failed: nothing is known of its worth.
    """

    login: AuditedLogin
    reasons: str | None
    guess_number_log10: float | None
    failed: bool = False


def finding_of(
    one: Measured, kind: FindingKind, evidence: str, outcome: str = "", others: tuple[str, ...] = ()
) -> Finding:
    """A finding of the secret, its evidence named by the further field that it is of. outcome:
    what comes of it, said behind the evidence.
    """
    login = one.login
    said = f"{evidence}: {outcome}" if outcome else evidence
    if login.field:
        said = f"{said[:1].lower()}{said[1:]}"
        said, outcome = f"“{login.field}”: {said}", outcome or said
    return Finding(
        kind,
        login.login_id,
        said,
        others,
        one.guess_number_log10,
        said_once=outcome,
        field_name=login.field,
        field_id=login.field_id,
    )
