"""The safeguards as one sealed record."""

from newknot.core.keeping_rule import KeepingRule
from newknot.core.safeguards import Act, ProofRule, Safeguards
from newknot.store.errors import RecordDamaged
from newknot.store.manifest import Label
from newknot.store.record_json import iso, moment, packed, unpacked
from newknot.store.vault import Transaction, Vault, new_id


def put_safeguards(tx: Transaction, vault: Vault, safeguards: Safeguards) -> None:
    """Writes the one record of safeguards, new or over the former."""
    document = {
        "lock_after_s": safeguards.lock_after_s,
        "clipboard_clear_s": safeguards.clipboard_clear_s,
        "reveal_allowed": safeguards.reveal_allowed,
        "proof_minutes": safeguards.proof_minutes,
        "proof_before": {act.value: rule.value for act, rule in safeguards.proof_before.items()},
        "corpus_used": safeguards.corpus_used,
        "range": [safeguards.range_address, safeguards.range_used],
        "feed": [safeguards.feed_address, safeguards.feed_used],
        "mail": [safeguards.mail_address, safeguards.mail_used],
        "history_keep_days": safeguards.history_keep_days,
        "kept_out": list(safeguards.kept_out),
        "backup": [safeguards.backup_every_h, safeguards.backup_place],
        "keeping": [
            safeguards.keeping.daily,
            safeguards.keeping.weekly,
            safeguards.keeping.monthly,
        ],
        "last_backup_at": iso(safeguards.last_backup_at),
        "first_hour_over": safeguards.first_hour_over,
    }
    ids = vault.ids(Label.SETTINGS)
    tx.put(Label.SETTINGS, ids[0] if ids else new_id(), packed(document))


def get_safeguards(vault: Vault) -> Safeguards:
    """The safeguards as set; the defaults where none were set, the strictest where damaged."""
    ids = vault.ids(Label.SETTINGS)
    if not ids:
        return Safeguards()
    try:
        d = unpacked(vault.get(Label.SETTINGS, ids[0]))
    except RecordDamaged:
        return Safeguards(proof_before=dict.fromkeys(Act, ProofRule.EACH))
    range_address, range_used = d.get("range", ("", False))
    feed_address, feed_used = d.get("feed", ("", False))
    backup_every_h, backup_place = d.get("backup", (24, ""))
    mail_address, mail_used = d.get("mail", ("", False))
    return Safeguards(
        lock_after_s=d["lock_after_s"],
        clipboard_clear_s=d["clipboard_clear_s"],
        reveal_allowed=d["reveal_allowed"],
        proof_minutes=d["proof_minutes"],
        proof_before={Act(act): ProofRule(rule) for act, rule in d["proof_before"].items()},
        corpus_used=d["corpus_used"],
        range_address=range_address,
        range_used=range_used,
        feed_address=feed_address,
        feed_used=feed_used,
        mail_address=mail_address,
        mail_used=mail_used,
        history_keep_days=d.get("history_keep_days", 0),
        kept_out=tuple(d.get("kept_out", ())),
        backup_every_h=backup_every_h,
        backup_place=backup_place,
        keeping=KeepingRule(*d.get("keeping", ())),
        last_backup_at=moment(d["last_backup_at"]),
        first_hour_over=d.get("first_hour_over", False),
    )
