"""The made-up world: whole, of every kind of finding, and computed rather than stored."""

from collections import Counter
from pathlib import Path

from newknot.core.audit import FindingKind
from newknot.core.rotation import OPEN_STATES
from newknot.demo.world import PASSPHRASE, PracticeSites, prepare
from newknot.edge import SystemClock
from newknot.store.checks import get_check
from newknot.store.corpus import Corpus
from newknot.store.logins import get_history
from newknot.store.manifest import Label
from newknot.store.rotations import list_rotations
from newknot.store.vault import Vault
from newknot.usecases.check.checks import run_check
from newknot.usecases.check.corpora import AskedList
from newknot.usecases.logins.logins import list_logins
from newknot.usecases.logins.loose_ends import list_loose_ends
from newknot.usecases.progress import Progress
from tests.support.running import free_port


def test_the_world_is_whole_and_its_findings_come_back_after_deleting_them(tmp_path: Path) -> None:
    clock = SystemClock()
    with PracticeSites(tmp_path, port=free_port()) as sites:
        prepared = prepare(tmp_path, sites=sites, clock=clock)
        before = prepared.vault_path.stat().st_mtime_ns
        assert prepare(tmp_path, sites=sites, clock=clock) == prepared
        assert prepared.vault_path.stat().st_mtime_ns == before
    vault = Vault.unlock(
        prepared.vault_path, passphrase=PASSPHRASE, state_folder=tmp_path / "state"
    )
    cards, damaged = list_logins(vault)
    assert len(cards) >= 60 and not damaged and not vault.is_older_copy
    result = get_check(vault)
    assert result is not None
    assert {f.kind for f in result.findings} == set(FindingKind) - {
        FindingKind.NOTICE,
        FindingKind.UNEXPLAINED_CHANGE,
    }
    assert len(result.earlier) == 8 and len(list_loose_ends(vault)) == 2
    assert sum(r.state in OPEN_STATES for r in list_rotations(vault)) == 1
    assert (clock.now() - min(c.created_at for c in cards)).days > 3 * 365
    assert sum(len(get_history(vault, c.login_id)) for c in cards) >= 8
    with vault.transaction() as tx:
        for check_id in vault.ids(Label.CHECK):
            tx.remove(Label.CHECK, check_id)
    corpora = [Corpus.open(path) for path in prepared.corpus_paths]
    lists = [AskedList(one, one.title) for one in corpora]
    again = run_check(vault, lists=lists, progress=Progress(), now=result.checked_at)
    assert Counter(again.findings) == Counter(result.findings)
    vault.close()
