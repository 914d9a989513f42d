"""What a check measured of each login's secret, kept so that it is measured once."""

from newknot.core.login import Origin
from newknot.core.secret import Secret
from newknot.core.strength.dictionaries import DICTIONARY_VERSION
from newknot.core.strength.kept import KeptMeasure
from newknot.core.strength.same_texts import SameTexts
from newknot.store.kept_measures import get_kept_measures, put_kept_measures
from newknot.store.own_details import get_own_details
from newknot.store.passphrases import get_passphrases
from newknot.store.vault import Transaction, Vault
from newknot.usecases.vault.vault_passphrase import passphrase_likeness

NEW_LEAST = 20
LIKENESS_VERSION = "2"
"""Of the ways in which a secret can be like a passphrase, and of their words."""
_LIKENESS = "\0like the passphrase"
"""Behind a login's id, where the name of a field would stand."""


class KeptMeasures:
    """The measures of the logins' secrets, and how each is like a passphrase of the vault: those
    kept while nothing changed, else new ones.
    """

    def __init__(self, vault: Vault) -> None:
        self._vault = vault
        self._own = get_own_details(vault).lines
        self._passphrases = get_passphrases(vault)
        each = (",".join(sorted(f.hex() for f in one.fingerprints)) for one in self._passphrases)
        self._like = vault.fingerprint("like", str(DICTIONARY_VERSION), LIKENESS_VERSION, *each)
        self._held = get_kept_measures(vault)
        self._new_count = 0
        self.end_check()

    def end_check(self) -> None:
        """Forgets what only spares asking twice within one check."""
        self._texts = SameTexts()
        self._likenesses: dict[bytes, str] = {}

    def of(self, login_id: str, secret: Secret, context: tuple[str, ...]) -> KeptMeasure:
        """The measure of a login's secret beside what others know of it and of the user. login_id:
        with the name of the field behind it where it is of one.
        """
        known = (*context, *self._own)
        text = secret.reveal()
        print_of = self._vault.fingerprint("measure", str(DICTIONARY_VERSION), text, *known)
        held = self._held.get(login_id)
        if held is not None and held[0] == print_of:
            return held[1]
        found = self._texts.of(text, known)
        self._held[login_id] = (print_of, found)
        self._new_count += 1
        return found

    def passphrase_likeness(self, login_id: str, secret: Secret, origin: Origin) -> str:
        """How a secret resembles a passphrase of the vault; a drawn one does not."""
        if origin.kind == "drawn" or not self._passphrases:
            return ""
        print_of = self._vault.fingerprint("likeness", self._like.hex(), secret.reveal())
        kept_as = f"{login_id} {_LIKENESS}"
        held = self._held.get(kept_as)
        if held is not None and held[0] == print_of:
            return held[1].reasons
        if print_of not in self._likenesses:
            says = passphrase_likeness(self._vault, secret, self._passphrases)
            self._likenesses[print_of] = says
        says = self._likenesses[print_of]
        self._held[kept_as] = (print_of, KeptMeasure(0.0, says))
        return says

    def keep(self, tx: Transaction, login_ids: set[str]) -> None:
        """Writes those of these logins, where so many are new that it is worth the whole record."""
        if self._new_count >= NEW_LEAST:
            here = {i for i in self._held if i.partition(" ")[0] in login_ids}
            self._held = {i: held for i, held in self._held.items() if i in here}
            put_kept_measures(tx, self._vault, self._held)
            self._new_count = 0
