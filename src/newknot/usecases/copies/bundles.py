"""The sealed bundle: everything out, and another copy's everything merged in."""

import secrets
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from datetime import datetime

from newknot.core.audit.breached import CorpusLookup
from newknot.core.errors import FieldInvalid
from newknot.core.merging.merge import CARD, HISTORY, LOGIN, Contents, Merge, merged
from newknot.core.merging.stamps import Why, units
from newknot.core.merging.texts import APART, entries_of, seen, text_of, why_beside
from newknot.core.secret import Secret
from newknot.crypto import KdfParameters
from newknot.crypto.bundle import (
    is_for_a_key,
    new_recipient_key,
    open_bundle,
    public_key_of,
    seal_bundle,
    seal_bundle_to,
)
from newknot.exchange.bundle import (
    BundleContent,
    BundleContentRefused,
    read_content,
    write_content,
)
from newknot.store.bundle_key import get_bundle_key, put_bundle_key
from newknot.store.campaigns import get_campaign
from newknot.store.logins import get_card, get_history, get_secrets, put_card
from newknot.store.loose_ends import list_loose_ends
from newknot.store.merging import read_contents, write_merge
from newknot.store.own_details import get_own_details
from newknot.store.policies import get_policy
from newknot.store.rotations import get_rotation, get_rotation_secrets
from newknot.store.vault import Vault
from newknot.store.waivers import list_waivers
from newknot.usecases.check.measuring import full_measure
from newknot.usecases.errors import ImportStopped
from newknot.usecases.progress import Step
from newknot.usecases.vault.vault_passphrase import Judgement

__all__ = ["is_for_a_key"]

_READERS: dict[str, tuple[Callable[[Vault, str], object], ...]] = {
    "LOGIN": (get_card, get_secrets, get_history),
    "POLICY": (get_policy,),
    "ROTATION": (get_rotation, get_rotation_secrets),
    "CAMPAIGN": (get_campaign,),
}


@dataclass(frozen=True, slots=True)
class MergeLine:
    """One login that a merge touches, by its names; what: added, changed, removed, parted, asked.

    label: of records that are no logins. texts: of those that both sides changed: (name, the one
    that is taken, the one that is kept beside it, why). secret_taken: why one secret of two counts.
    in_bin: of what is asked, whether it lies there; else it was deleted for good on one side.
    """

    login_id: str
    title: str
    user_name: str
    what: str
    label: str = LOGIN
    texts: tuple[tuple[str, str, str, Why], ...] = ()
    secret_taken: Why | None = None
    in_bin: bool = False


def take_out(
    vault: Vault,
    *,
    passphrase: str,
    parameters: KdfParameters,
    corpora: Sequence[CorpusLookup],
    now: datetime,
    drawn: bool = False,
) -> bytes:
    """The vault as a sealed bundle under a passphrase of its own. drawn: it, by chance.

    Raises `PassphraseTooWeak`, `PassphraseBreached`.
    """
    measured = full_measure(passphrase, vault=vault, corpora=corpora, context=())
    Judgement(measured, drawn=drawn).require_allowed()
    text = write_content(read_contents(vault), vault_id=vault.vault_id.hex(), made_at=now)
    return seal_bundle(
        text, passphrase=passphrase, parameters=parameters, random_bytes=secrets.token_bytes
    )


def public_key(vault: Vault) -> str:
    """What another device needs to seal bundles for this vault alone; made when first asked for."""
    held = get_bundle_key(vault)
    if held is None:
        held = Secret(new_recipient_key())
        with vault.transaction() as tx:
            put_bundle_key(tx, held)
    return public_key_of(held.reveal())


def take_out_for(vault: Vault, *, recipient: str, now: datetime) -> bytes:
    """The vault as a bundle that the vault of a public key alone opens. Raises `FieldInvalid`."""
    text = write_content(read_contents(vault), vault_id=vault.vault_id.hex(), made_at=now)
    return seal_bundle_to(text, public_key=recipient)


def open_file(vault: Vault, file: bytes, *, passphrase: str) -> BundleContent:
    """What a bundle holds, by its passphrase or this vault's own key.

    Raises `BundleRefused`, `BundleClosed`, `BundleContentRefused`, `KeyParametersRefused`.
    """
    held = get_bundle_key(vault)
    private_key = held.reveal() if held is not None else None
    return read_content(open_bundle(file, passphrase=passphrase, private_key=private_key))


def preview_merge(vault: Vault, bundle: BundleContent) -> list[MergeLine]:
    """What merging would change here, before anything is."""
    ours = read_contents(vault)
    return _lines(merged(ours, bundle.contents), ours)


def merge_in(
    vault: Vault,
    bundle: BundleContent,
    *,
    take_out_of_bin: frozenset[str],
    progress: Step = lambda done, total: True,
    now: datetime,
) -> list[MergeLine]:
    """Merges, in one transaction or not at all; then takes these logins out of the bin, as the user
    answered of what was deleted on one side and changed on the other. Where progress(done, total)
    answers False, raises `ImportStopped`, and nothing came in.
    """
    with vault.transaction() as tx:
        ours = read_contents(vault, _third(progress, 0))
        merge = merged(ours, bundle.contents)
        write_merge(tx, vault, ours, merge, _third(progress, 1))
        _require_readable(vault, merge, _third(progress, 2))
        for login_id in take_out_of_bin & set(merge.asked):
            card = get_card(vault, login_id)
            if card.deleted_at is not None:
                put_card(tx, replace(card, deleted_at=None, changed_at=now))
    return _lines(merge, ours)


def _third(progress: Step, which: int) -> Callable[[int, int], None]:
    def step(done: int, total: int) -> None:
        if not progress(which * total + done, 3 * total):
            raise ImportStopped()

    return step


def _require_readable(vault: Vault, merge: Merge, step: Callable[[int, int], None]) -> None:
    """What came in is read as the vault reads it, before it is committed: what only looks like a
    document would else stand in the way of every list. Raises `BundleContentRefused`.
    """
    try:
        written = (*merge.added, *merge.changed)
        for done, (label, record_id) in enumerate(written):
            step(done, len(written))
            for read in _READERS.get(label, ()):
                read(vault, record_id)
        list_waivers(vault)
        list_loose_ends(vault)
        get_own_details(vault)
    except (ValueError, KeyError, TypeError, AttributeError, FieldInvalid):
        raise BundleContentRefused(reason="holds a record that is not understood") from None


def _texts_apart(
    merge: Merge, ours: Contents, login_id: str
) -> tuple[tuple[str, str, str, Why], ...]:
    """What a merge keeps beside the texts that count, and was not kept here before."""
    joined = merge.contents.records.get(LOGIN, {}).get(login_id, {})
    before = ours.records.get(LOGIN, {}).get(login_id, {})
    known = {entry[0] for entry in entries_of(before.get(HISTORY))}
    card = joined.get(CARD, {})
    current = units(card)
    return tuple(
        (
            unit.removeprefix("fields/"),
            text_of(unit, current[unit]) if unit in current else "",
            str(text),
            why_beside([one, unit, text, state], card),
        )
        for one, unit, text, state in seen(entries_of(joined.get(HISTORY)), card)
        if state == APART and one not in known
    )


def _lines(merge: Merge, ours: Contents) -> list[MergeLine]:
    parted, asked = set(merge.parted), set(merge.asked)
    lines: list[MergeLine] = []
    for what, keys in (
        ("added", merge.added),
        ("changed", merge.changed),
        ("removed", merge.removed),
    ):
        for label, record_id in keys:
            held = ours if what == "removed" else merge.contents
            card = held.records[label][record_id].get(CARD, {})
            said = what
            if label == LOGIN and record_id in parted:
                said = "parted"
            lines.append(
                MergeLine(
                    record_id,
                    str(card.get("title", "")),
                    str(card.get("user_name", "")),
                    said,
                    label,
                    _texts_apart(merge, ours, record_id) if label == LOGIN else (),
                    merge.secrets_taken.get(record_id),
                )
            )
    for login_id in sorted(asked):
        card = merge.contents.records[LOGIN][login_id][CARD]
        names = str(card["title"]), str(card.get("user_name", ""))
        in_bin = card.get("deleted_at") is not None
        lines.append(MergeLine(login_id, *names, "asked", in_bin=in_bin))
    return sorted(lines, key=lambda one: (one.title.casefold(), one.login_id, one.what))
