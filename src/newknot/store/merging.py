"""All that two copies of a vault merge, as documents, read and written whole."""

from collections.abc import Callable

from newknot.core.merging.merge import HISTORY, MERGED_LABELS, Contents, Merge, stamps_of_gone
from newknot.core.merging.restoring import Restore
from newknot.core.merging.stamps import risen, unstamped
from newknot.store.change_stamps import PARTS, get_removed, new_tag
from newknot.store.errors import RecordDamaged, RecordMissing
from newknot.store.manifest import Label
from newknot.store.record_json import packed, unpacked
from newknot.store.sealed_file import SealedFile
from newknot.store.transaction import Transaction

Step = Callable[[int, int], object]
"""Takes how much is done of how much; may raise, to stop."""


def no_step(done: int, total: int) -> None:
    """Of one who does not ask."""


def read_contents(vault: SealedFile, step: Step = no_step) -> Contents:
    """Everything that can be read; a record that is damaged is left out as a whole."""
    found = Contents(removed=get_removed(vault), written_ms=round(vault.wall_s() * 1000))
    ids = {one: vault.ids(one) for one in Label if one.name in MERGED_LABELS}
    done, total = 0, sum(map(len, ids.values()))
    for label, of_label in ids.items():
        records = {}
        for record_id in of_label:
            step(done, total)
            done += 1
            try:
                records[record_id] = _parts(vault, label, record_id)
            except (RecordDamaged, ValueError):
                found.unread.add(record_id)
        if records:
            found.records[label.name] = records
    return found


def write_merge(
    tx: Transaction, vault: SealedFile, before: Contents, merge: Merge, step: Step = no_step
) -> None:
    """Writes what a merge changes of what was there. Its documents bring their own stamps."""
    for label_name, record_id in merge.removed:
        tx.remove(Label[label_name], record_id)
    written = (*merge.added, *merge.changed)
    for done, (label_name, record_id) in enumerate(written):
        step(done, len(written))
        known = before.records.get(label_name, {}).get(record_id, {})
        for part, document in merge.contents.records[label_name][record_id].items():
            if known.get(part) != document:
                tx.put_as_it_is(Label[label_name], record_id, packed(document), part=int(part))
    if get_removed(vault) != merge.contents.removed:
        tx.put_removed(merge.contents.removed)


def _parts(vault: SealedFile, label: Label, record_id: str) -> dict[str, dict[str, object]]:
    parts = {}
    for part in PARTS:
        try:
            parts[str(part)] = unpacked(vault.get(label, record_id, part))
        except RecordMissing:
            continue
    return parts


def write_restore(tx: Transaction, vault: SealedFile, ours: Contents, restore: Restore) -> None:
    """Writes what a restore changes: a change like any other, with new stamps. What goes is not
    noted as deleted: another copy that still has it loses nothing by a merge.
    """
    for label, record_id in restore.removed:
        tx.remove(Label[label], record_id, noted=False)
    for label, records in restore.written.items():
        for record_id, parts in records.items():
            known = ours.records.get(label, {}).get(record_id, {})
            # A login without its third part has no history: then it is emptied.
            wanted = {**({HISTORY: {"earlier": []}} if HISTORY in known else {}), **parts}
            for part, document in wanted.items():
                if unstamped(known.get(part)) != unstamped(document):
                    fresh = unstamped(document) or {}
                    if not known and record_id in ours.removed:
                        known_of_it = stamps_of_gone(ours.removed[record_id], part)
                        fresh = risen(fresh, known_of_it, tag=new_tag(vault, {}))
                    tx.put(Label[label], record_id, packed(fresh), part=int(part))
