"""An invented vault with its findings written down beforehand: none more, none fewer."""

from collections.abc import Sequence
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta

import pytest

from newknot.core.audit import AuditedLogin, AuditedRotation, AuditStopped, FindingKind, audit
from newknot.core.audit.breached import secret_digest
from newknot.core.breach import CorpusTitle
from newknot.core.login import Importance, Origin
from newknot.core.secret import Secret

NOW = datetime(2026, 11, 25, 12, tzinfo=UTC)
DRAWN = Origin("drawn", 126.0)


class List:
    """A corpus of one secret."""

    title = CorpusTitle("small list", date(2026, 5, 1), 1, 1500)

    def occurrences_many(self, digests: Sequence[bytes], /) -> list[int]:
        return [1024 if digest == secret_digest("vWq81-xPlM") else 0 for digest in digests]


def login(login_id: str, secret: str | None, **more: object) -> AuditedLogin:
    plain = AuditedLogin(
        login_id=login_id,
        title=login_id.title(),
        user_name="ilse",
        address=f"https://{login_id}.example",
        importance=Importance.NORMAL,
        expires_on=None,
        max_age_days=None,
        secret=None if secret is None else Secret(secret),
        origin=Origin("own"),
        secret_since_at=NOW - timedelta(days=100),
    )
    return replace(plain, **more)  # type: ignore[arg-type]


VAULT = [
    login("sound", "kV!8q-Lz3#Rw0pXt_2mB", origin=DRAWN),
    login("empty", None),
    login("listed", "vWq81-xPlM"),
    login("simple", "lantern1", importance=Importance.CRITICAL),
    login("twin", "Rt7-kkPz!w42mQ", address="http://twin.example"),
    login("other", "Rt7-kkPz!w42mQ"),
    login("third", "Rt7-kkPz!w42mQ", importance=Importance.HIGH),
    login("expired", "Zp4!mmQx-w93kT", expires_on=date(2026, 11, 1)),
    login("aged", "Yx9!qqWv-m17zR", max_age_days=90),
    login("local", "Ux2!ppLk-t66wN", address="http://local.localhost:8080"),
    login("coming", "Nb5!wwRt-k28xQ", expires_on=date(2026, 12, 24), max_age_days=365),
]
ROTATIONS = [
    AuditedRotation("sound", "at_site", NOW - timedelta(days=2)),
    AuditedRotation("gone", "staged", NOW),
]
EXPECTED = [
    ("breached", "listed", "In the corpus, 1,000 to 2,000 times (small list of May 2026)"),
    ("weak", "simple", "Word and digits: falls at the sign-in form itself"),
    ("reused", "third", "Same as Twin and 1 other"),
    ("reused", "other", "Same as Twin and 1 other"),
    ("reused", "twin", "Same as Other and 1 other"),
    (
        "unfinished",
        "sound",
        "Rotation left at the site on 23 November: did it take the new secret?",
    ),
    ("overdue", "aged", "Site asks for a change every 90 days: 10 days over"),
    ("overdue", "expired", "Expires on 1 November 2026, a day you set: it is past"),
    (
        "plain_http",
        "twin",
        "twin.example is reached by http: the secret crosses the network in the clear",
    ),
]


def test_the_findings_are_those_written_down() -> None:
    found = audit(VAULT, now=NOW, corpus=List(), rotations=ROTATIONS)
    assert sorted((f.kind.value, f.login_id, f.evidence) for f in found) == sorted(EXPECTED)
    order = [f.kind for f in found]
    assert order == sorted(order, key=list(FindingKind).index)
    assert next(f.login_id for f in found if f.kind is FindingKind.REUSED) == "third"


def test_the_order_of_logins_does_not_matter_and_no_evidence_holds_a_secret() -> None:
    found = audit(VAULT, now=NOW, corpus=List(), rotations=ROTATIONS)
    again = audit(VAULT[::-1], now=NOW, corpus=List(), rotations=ROTATIONS)
    assert [(f.kind, f.login_id) for f in found] == [(f.kind, f.login_id) for f in again]
    secrets = [one.secret.reveal() for one in VAULT if one.secret is not None]
    assert not any(s in f.evidence for s in secrets for f in found)


def test_without_a_corpus_nothing_is_said_of_breaches() -> None:
    found = audit(VAULT, now=NOW, corpus=None)
    assert all(f.kind is not FindingKind.BREACHED for f in found)


def test_a_short_draw_is_weak_by_its_bits_not_by_its_looks() -> None:
    (found,) = audit([login("pin", "7391", origin=Origin("drawn", 13.28))], now=NOW, corpus=None)
    assert found.kind is FindingKind.WEAK
    assert found.evidence.startswith("Too short a draw")


def test_ten_thousand_of_one_secret_are_one_group_without_blowing_up() -> None:
    many = [login(f"l{i:05}", "Rt7-kkPz!w42mQ", origin=DRAWN) for i in range(10_000)]
    found = audit(many, now=NOW, corpus=None)
    assert len(found) == 10_000
    assert found[0].evidence == "Same as L00001 and 9998 others"
    assert max(len(f.others) for f in found) <= 50


def test_it_stops_when_asked() -> None:
    with pytest.raises(AuditStopped):
        audit(VAULT, now=NOW, corpus=None, progress=lambda done, total: done < 3)
