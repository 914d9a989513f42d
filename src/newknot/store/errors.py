"""What can be wrong with a vault file."""

from newknot.core.errors import NewKnotError


class VaultMissing(NewKnotError):
    """There is no vault file at the path."""


class VaultExists(NewKnotError):
    """A file stands where a new vault was to be made; it was left as it is."""


class VaultDamaged(NewKnotError):
    """The vault file is not what was written. data: part (what is damaged, in plain words)."""


class VaultNewer(NewKnotError):
    """The vault file was made by a later version of New Knot. data: version."""


class VaultInUse(NewKnotError):
    """Another process holds the vault. data: address (where it answers, or empty)."""


class VaultFolderRefused(NewKnotError):
    """The vault's folder cannot be written to. data: reason."""


class VaultReadOnly(NewKnotError):
    """The vault is an older copy than the one last seen here: answer that first."""


class RecordMissing(NewKnotError):
    """No such record."""


class RecordDamaged(NewKnotError):
    """A record that was changed, swapped, or put back from an older copy. data: record_id."""


class DiskFull(NewKnotError):
    """The disk took no more; nothing was changed."""


class VaultLocked(NewKnotError):
    """The vault is locked, or is just being locked."""


class DiskFailed(NewKnotError):
    """The disk did not do what it was asked; nothing is known to be damaged. data: reason."""
