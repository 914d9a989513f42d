"""Why an act is not done."""

from newknot.core.errors import NewKnotError
from newknot.store.errors import VaultLocked as VaultLocked


class VaultBusy(NewKnotError):
    """Something long is under way in the vault: stop it, or wait for its end."""


class SessionUnknown(NewKnotError):
    """No session, or only half of one: unlock here first."""


class ProofNeeded(NewKnotError):
    """The vault passphrase is asked again before this act. data: act."""


class TooManyGuesses(NewKnotError):
    """Wrong passphrases came too fast. data: retry_after_s."""


class PassphraseTooWeak(NewKnotError):
    """A vault passphrase within 10^10 guesses. data: guess_number_log10, reasons, is_bound (it is
    beyond them only if nobody guesses how it was made).
    """


class PassphraseBreached(NewKnotError):
    """A vault passphrase that stands in the breach corpus."""


class PassphraseResembles(NewKnotError):
    """A vault passphrase like a secret in the vault or an earlier passphrase. data: logins
    (titles), earlier.
    """


class RevealSwitchedOff(NewKnotError):
    """Showing secrets is switched off among the safeguards; copying still works."""


class FindingUnknown(NewKnotError):
    """The last check has no such finding that still stands: check again."""


class CheckRunning(NewKnotError):
    """A check is under way already."""


class DrawUnknown(NewKnotError):
    """A draw that is no longer kept: the newest 20 are, until the vault is locked."""


class ImportUnknown(NewKnotError):
    """A file that was read before the vault was last locked: choose it again."""


class ImportStopped(NewKnotError):
    """Bringing in was stopped before its end; nothing came in."""


class NothingHeld(NewKnotError):
    """There is no such secret at this step."""


class EarlierHeld(NewKnotError):
    """The earlier secret is the one that an open rotation may still need: end that first."""


class PictureWithoutKey(NewKnotError):
    """No QR code of the picture holds a key of codes."""


class SheetsVoid(NewKnotError):
    """Recovery sheets that open this vault no more, or never did."""


class RotationOpen(NewKnotError):
    """A rotation of this login is under way: end that first."""


class InBin(NewKnotError):
    """The login lies in the bin: restore it first."""


class BackupUnknown(NewKnotError):
    """No backup of that name."""


class BackupOfOtherKey(NewKnotError):
    """A backup that this vault's key does not open whole."""


class BackupNotVerified(NewKnotError):
    """A copy that would not give everything back; it was put apart. data: part (in words),
    title (of the login it is of, or "").
    """


class BackupFailed(NewKnotError):
    """A backup by schedule ended in an error that nothing was known of. data: kind (its name)."""


class ServiceOff(NewKnotError):
    """A service outside that is not switched on in the safeguards is not asked."""


class DriveOff(NewKnotError):
    """The login is not one whose site New Knot may drive: that is switched on for each login."""


class DriveRunning(NewKnotError):
    """This rotation is being driven already."""


class ChangedMeanwhile(NewKnotError):
    """What is to be saved was changed in another window since it was read here."""


class NoCopy(NewKnotError):
    """What is to be opened is neither a backup of a vault nor a sealed bundle."""
