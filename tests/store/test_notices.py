"""What earlier programs wrote of notices."""

from dataclasses import replace

from newknot.core.audit.notice import Notice
from newknot.store.manifest import Label
from newknot.store.notices import HeldNotices, get_notices, put_notices
from newknot.store.record_json import packed, unpacked
from newknot.store.vault import Vault
from tests.store.samples import AT


def test_where_it_was_not_noted_a_notice_is_known_since_the_last_fetch(vault: Vault) -> None:
    notice = Notice("n", "Told", "gantry.example", AT.date(), (), AT.replace(year=2020))
    with vault.transaction() as tx:
        put_notices(tx, vault, HeldNotices(AT, (notice,), 0))
    assert get_notices(vault) == HeldNotices(AT, (notice,), 0)
    (record_id,) = vault.ids(Label.NOTICES)
    document = unpacked(vault.get(Label.NOTICES, record_id)) | {"seen_at": None}
    with vault.transaction() as tx:
        tx.put(Label.NOTICES, record_id, packed(document))
    assert get_notices(vault) == HeldNotices(AT, (replace(notice, seen_at=AT),), 0)
