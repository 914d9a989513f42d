"""Sessions: two halves of a credential, and the proofs of presence given in each."""

import secrets
from dataclasses import dataclass, field
from hashlib import sha256
from hmac import compare_digest

from newknot.core.safeguards import Act, ProofRule, Safeguards
from newknot.usecases.errors import ProofNeeded, SessionUnknown

HALF_BYTES = 32
PROOF_LIFE_S = 60.0
SESSIONS_MOST = 20
SESSION_LIFE_S = 12 * 3600.0


@dataclass(frozen=True, slots=True)
class Call:
    """One call of the interface. what: method and path with its query; body: the SHA-256 of its
    body, as hexadecimal digits. Empty: any.
    """

    what: str = ""
    body: str = ""

    def covers(self, other: "Call") -> bool:
        """Whether what is said of this one is so of the other."""
        return self.what in ("", other.what) and self.body in ("", other.body)


@dataclass(slots=True)
class Session:
    """One unlocked window. Halves are kept as digests; a proof is good once, for a minute. began_s,
    proved_boot_s: of the clock since boot. proofs: digest of each -> when it was given, and the
    call that it is for (empty: any one).
    """

    cookie_digest: bytes
    header_digest: bytes
    began_s: float
    proved_boot_s: float
    proofs: dict[bytes, tuple[float, "Call"]] = field(default_factory=dict)


class Sessions:
    """The open sessions of the one unlocked vault."""

    def __init__(self) -> None:
        self._open: list[Session] = []

    def begin(self, boot_s: float, cookie: str = "") -> tuple[str, str]:
        """(cookie half, header half) of a new session; unlocking counts as a proof.

        cookie: the half that the browser sent; kept where an open session has it, so that its other
        tabs go on. Each tab has a header half of its own.
        """
        if not cookie or all(one.cookie_digest != _digest(cookie) for one in self.open(boot_s)):
            cookie = secrets.token_urlsafe(HALF_BYTES)
        header = secrets.token_urlsafe(HALF_BYTES)
        self._open.append(Session(_digest(cookie), _digest(header), boot_s, boot_s))
        del self._open[:-SESSIONS_MOST]
        return cookie, header

    def open(self, boot_s: float) -> list[Session]:
        """Those that are open, the oldest first; one that is too old is let go."""
        self._open = [one for one in self._open if boot_s - one.began_s < SESSION_LIFE_S]
        return list(self._open)

    def find(self, cookie: str, header: str, boot_s: float) -> Session:
        """The session that both halves name. Raises `SessionUnknown`."""
        digests = _digest(cookie), _digest(header)
        for session in self.open(boot_s):
            if compare_digest(session.cookie_digest, digests[0]) and compare_digest(
                session.header_digest, digests[1]
            ):
                return session
        raise SessionUnknown()

    def keep_only(self, session: Session) -> None:
        """Ends all others."""
        self._open = [one for one in self._open if one is session]

    def clear(self) -> None:
        """Ends all sessions."""
        self._open.clear()


def give_proof(session: Session, boot_s: float, call: Call) -> str:
    """A token for one act within a minute, after the passphrase was given again. call: that act, so
    that it serves for no other and for no other record, named in the path or in the body.
    """
    token = secrets.token_urlsafe(HALF_BYTES)
    fresh = {k: one for k, one in session.proofs.items() if boot_s - one[0] < PROOF_LIFE_S}
    session.proofs = {**fresh, _digest(token): (boot_s, call)}
    session.proved_boot_s = boot_s
    return token


def require_proof(
    session: Session, act: Act, *, safeguards: Safeguards, token: str, boot_s: float, call: Call
) -> None:
    """Raises `ProofNeeded` where the rule for the act is not met; uses the token up."""
    rule = safeguards.proof_before[act]
    if rule is ProofRule.UNLOCK:
        return
    if rule is ProofRule.MINUTES and boot_s - session.proved_boot_s < 60 * safeguards.proof_minutes:
        return
    given = session.proofs.pop(_digest(token), None) if token else None
    if given is None or boot_s - given[0] >= PROOF_LIFE_S or not given[1].covers(call):
        raise ProofNeeded(act=act.value)


def _digest(half: str) -> bytes:
    return sha256(half.encode("utf-8", "replace")).digest()
