"""An invented vault with its findings written down beforehand: none more, none fewer."""

from collections.abc import Sequence
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from typing import ClassVar

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from newknot.core.audit import AuditedLogin, AuditedRotation, AuditStopped, FindingKind, audit
from newknot.core.audit.audit import Fresh
from newknot.core.audit.audited import Measured
from newknot.core.audit.breached import secret_digest
from newknot.core.audit.importance import importance_of
from newknot.core.audit.memory import AuditMemory
from newknot.core.audit.similar import Likenesses, similar
from newknot.core.audit.weak import weak
from newknot.core.breach import CorpusTitle
from newknot.core.login import Importance, Origin, SecondFactor
from newknot.core.policy import SitePolicy
from newknot.core.secret import Secret
from newknot.core.strength import measure
from newknot.core.strength.kept import KeptMeasure
from tests.support.vectors import examples

NOW = datetime(2026, 11, 25, 12, tzinfo=UTC)
LAST_YEAR = NOW - timedelta(days=400)
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


def rules(longest: int) -> SitePolicy:
    """Letters, digits and symbols up to a length."""
    printable = "".join(map(chr, range(0x21, 0x7F)))
    classes = [{"name": "any", "characters": printable}]
    return SitePolicy.from_dict({"min_length": 4, "max_length": longest, "classes": classes})


SHORT, LONG = rules(10), rules(40)
VAULT = [
    login("sound", "kV!8q-Lz3#Rw0pXt_2mB", origin=DRAWN),
    login("empty", None),
    login("listed", "vWq81-xPlM"),
    login("simple", "lantern1", importance=Importance.CRITICAL),
    login("twin", "Rt7-kkPz!w42mQ", address="http://twin.example"),
    login("other", "Rt7-kkPz!w42mQ", secret_since_at=NOW - timedelta(days=170)),
    login("third", "Rt7-kkPz!w42mQ", importance=Importance.HIGH, secret_since_at=LAST_YEAR),
    login("expired", "Zp4!mmQx-w93kT", expires_on=date(2026, 11, 1)),
    login("aged", "Yx9!qqWv-m17zR", max_age_days=90),
    login("local", "Ux2!ppLk-t66wN", address="http://local.localhost:8080"),
    login("spring", "Lampshade2023"),
    login("autumn", "lampshade2024!"),
    login("ruled", "Qm7!rrXv-t29pK", policy=SHORT, policy_name="Ruled Site"),
    login("roomy", "kd8fm2qz", policy=LONG, policy_name="Roomy Site"),
    login("kin", "Wv3!ddKs-p55mJ", passphrase_likeness="Like it: three in a row"),
    login("sounds", "kV!8q-Lz3#Rw0pXt_2mC"),
    login("bare", "Hc6!vvTq-r41pZ", policy=LONG, policy_name="Bare", offers_second_factor=True),
    login("app", "Jd4!ssWm-q52kV", offers_second_factor=True, second_factor=SecondFactor.ELSEWHERE),
    login("coming", "Nb5!wwRt-k28xQ", expires_on=date(2026, 12, 24), max_age_days=365),
]
ROTATIONS = [
    AuditedRotation("sound", "at_site", NOW - timedelta(days=2)),
    AuditedRotation("gone", "staged", NOW),
]
TEXTS = [
    *("lantern1", "lantern2", "Lantern1", "kettle!1", "vWq81-xPlM", "vWq81-xPlN", "7391"),
    *("Rt7-kkPz!w42mQ", "Rt7-kkPz!w42mX", "Rt7-kkPz!w42m", "lantern", None),
]
EXPECTED = [tuple(row) for row in examples("findings_written_down.json")]


def test_the_findings_are_those_written_down() -> None:
    found = audit(VAULT, now=NOW, corpus=List(), rotations=ROTATIONS)
    assert sorted((f.kind.value, f.login_id, f.evidence) for f in found) == sorted(EXPECTED)
    assert [f.kind.value for f in found[:4]] == ["weak", "breached", "reused", "like_passphrase"]
    assert next(f.login_id for f in found if f.kind is FindingKind.REUSED) == "third"
    simple = next(f for f in found if f.login_id == "simple")
    assert simple.why == "Ordered by kind (30), importance (critical, × 4)."


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
    assert found[0].evidence == "Same as L00001 and 9998 others, since August 2026"
    assert max(len(f.others) for f in found) <= 50


@settings(max_examples=20, deadline=None)
@given(st.lists(st.tuples(st.integers(0, 11), st.sampled_from(TEXTS)), max_size=12))
def test_with_a_memory_the_findings_are_those_of_a_whole_audit(
    changes: list[tuple[int, str | None]],
) -> None:
    now_held = {at: login(f"l{at:02}", text) for at, text in enumerate(TEXTS)}
    memory = AuditMemory()
    for at, text in [(0, TEXTS[0]), *changes]:
        if text is None:
            now_held.pop(at, None)
        else:
            now_held[at] = login(f"l{at:02}", text)
        logins = list(now_held.values())
        found = audit(logins, now=NOW, corpus=List(), memory=memory)
        assert found == audit(logins, now=NOW, corpus=List())


def test_a_list_is_asked_only_about_what_is_new_or_failed_before() -> None:
    class Failing(List):
        asked: ClassVar[list[int]] = []
        fails = True

        def occurrences_many(self, digests: Sequence[bytes], /) -> list[int | None]:  # type: ignore[override]
            self.asked.append(len(digests))
            return [None] * len(digests) if self.fails else [0] * len(digests)

    one, memory, logins = Failing(), AuditMemory(), VAULT[2:6]
    for fails in (True, False, False):
        one.fails = fails
        audit(logins, now=NOW, corpus=one, memory=memory)
    audit([*logins, VAULT[6]], now=NOW, corpus=one, memory=memory)
    assert one.asked == [4, 4, 0, 1]


def test_hits_in_several_lists_are_one_finding() -> None:
    other = List()
    other.title = CorpusTitle("other list", date(2025, 2, 1), 1, 1)
    (found,) = audit([login("listed", "vWq81-xPlM")], now=NOW, corpus=[List(), other])
    assert found.evidence == (
        "In the corpus, 1,000 to 2,000 times (small list of May 2026), also in other list of "
        "February 2025"
    )


def test_empty_and_very_long_secrets_are_checked_in_bounded_time() -> None:
    long = [
        "aB3-" * 2_500,
        "aB3-" * 2_499 + "aB3_",
        "lantern " * 1_250,
        "x" * 10_000,
        "",
        "x" * 10_000,
    ]
    found = audit([login(f"l{at}", text) for at, text in enumerate(long)], now=NOW, corpus=List())
    same = {f.login_id for f in found if f.kind is FindingKind.REUSED}
    assert same == {"l3", "l5"} and "l4" not in {f.login_id for f in found}


def test_it_stops_when_asked() -> None:
    with pytest.raises(AuditStopped):
        audit(VAULT, now=NOW, corpus=None, progress=lambda done, total: done < 3)


@pytest.mark.parametrize(
    ("one", "other", "how"),
    examples("how_secrets_differ.json"),
)
def test_near_reuse_says_how_the_two_differ(one: str, other: str, how: str) -> None:
    found = audit([login("first", one), login("second", other)], now=NOW, corpus=None)
    alike = [f.evidence for f in found if f.kind is FindingKind.SIMILAR]
    assert sorted(alike) == [f"Like First: {how}", f"Like Second: {how}"]


@pytest.mark.parametrize(
    ("unique", "count_sum", "said"),
    [
        (1, 1500, "In the corpus, 1,000 to 2,000 times (small list of May 2026)"),
        (
            7,
            7,
            "In the corpus (small list of May 2026, a list without counts)",
        ),
        (9, 0, "In the corpus, 1,024 times (small list of May 2026)"),
    ],
)
def test_how_often_is_said_as_the_list_knows_it(unique: int, count_sum: int, said: str) -> None:
    corpus = List()
    corpus.title = CorpusTitle("small list", date(2026, 5, 1), unique, count_sum)
    (found,) = audit([login("listed", "vWq81-xPlM")], now=NOW, corpus=corpus)
    assert found.evidence == said


def test_what_is_said_is_so_where_there_is_no_secret_and_names_no_character() -> None:
    bare = login("bare", None, address="http://bare.example", expires_on=date(2026, 1, 1))
    odd = login("odd", "abcdefghij\u00e9 1", policy=LONG, policy_name="Odd")
    found = {
        (f.kind.value, f.login_id): f.evidence for f in audit([bare, odd], now=NOW, corpus=None)
    }
    says = "bare.example is reached by http: what is typed there crosses the network in the clear"
    assert found["plain_http", "bare"] == says
    assert ("overdue", "bare") not in found
    broken = "Breaks a rule of Odd: a letter beyond a to z, the 11th character, is not taken"
    assert found["off_policy", "odd"] == broken


def keeps(first: int, *, folds: bool = False) -> SitePolicy:
    """A site that keeps the first so many characters."""
    return replace(LONG, keeps_first=first, folds_case=folds)


def test_what_a_site_keeps_is_what_is_reused_breached_and_similar() -> None:
    cut = {"policy": keeps(10), "policy_name": "Cut"}
    logins = [
        login("long", "vWq81-xPlM-and-more", **cut),
        login("other", "vWq81-xPlM!else", **cut),
        login("whole", "vWq81-xPlM!else"),
        login("near", "vWq81-xPlN-and-more-still", **cut),
        login("folds", "VWQ81-XPLM-7", policy=keeps(40, folds=True), policy_name="Fold"),
    ]
    found = audit(logins, now=NOW, corpus=List())
    said = {(f.kind.value, f.login_id): f.evidence for f in found}
    assert said["breached", "long"].startswith("What its site keeps of it is in the corpus, 1,000")
    assert ("breached", "whole") not in said and ("breached", "near") not in said
    same = "Same as Other and 1 other, since its site keeps only the first 10 of 19 characters"
    assert said["reused", "long"].startswith(same)
    assert said["reused", "whole"].startswith("Same as Other and 1 other, since August 2026")
    assert ("reused", "folds") not in said and ("reused", "near") not in said
    assert said["similar", "near"] == "Like Long and 3 others: one character differs"


def test_further_secret_fields_are_checked_and_named() -> None:
    listed = login("listed", "Zp4!mmQx-w93kT")
    pin = replace(listed, field="PIN", secret=Secret("4417"))
    answer = replace(listed, field="Answer", secret=Secret("vWq81-xPlM"))
    other = login("other", "4417")
    own_pin = replace(listed, field="Old PIN", secret=Secret("4417"))
    gate = replace(listed, field="Gate", secret=Secret("kettlegate771"))
    fields = (pin, answer, own_pin, gate)
    found = audit([replace(listed, fields=fields), other], now=NOW, corpus=List())
    said = {(f.kind.value, f.login_id): f for f in found}
    assert len(said) == len(found)
    assert said["breached", "listed"].evidence.startswith("“Answer”: in the corpus, 1,000")
    weak = said["weak", "listed"].evidence
    assert weak.startswith("“PIN”: ") and "; “Old PIN”: " in weak and "“Answer”" not in weak
    assert weak.count("falls at the sign-in form itself") == weak.count("falls with the site") == 1
    # The number is that of the weakest of them.
    assert said["weak", "listed"].guess_number_log10 == measure("4417").guess_number_log10
    assert said["reused", "listed"].evidence.startswith("“PIN”; “Old PIN”: same as Other, since")
    assert said["reused", "other"].evidence.startswith("Same as “PIN” of Listed, since")
    assert not [f for f in audit([replace(listed, fields=(pin, own_pin))], now=NOW, corpus=None)
                if f.kind is FindingKind.REUSED]  # fmt: skip


def test_short_or_unlike_secrets_are_not_similar() -> None:
    texts = ["cat1", "cat2", "lantern", "kettle", "7391", "7392", "9first!kettle", "7first!lamp"]
    many = [login(f"l{at}", text) for at, text in enumerate(texts)]
    found = audit(many, now=NOW, corpus=None)
    assert not [f for f in found if f.kind is FindingKind.SIMILAR]


def test_ten_thousand_of_one_stem_are_one_group_without_blowing_up() -> None:
    many = [login(f"l{i:05}", f"lantern{i:05}") for i in range(10_000)]
    (group,) = Likenesses().groups([[Measured(one, None, None)] for one in many])
    found = list(similar(group))
    assert len(found) == 10_000
    assert found[0].evidence.startswith("Like L00001 and 9998 others")
    assert max(len(f.others) for f in found) <= 50


class FailsOn:
    """Measures that fail on one login, whatever the reason."""

    def __init__(self, login_id: str) -> None:
        self._login_id = login_id

    def of(self, login_id: str, secret: Secret, context: tuple[str, ...]) -> KeptMeasure:
        if login_id == self._login_id:
            raise IndexError(login_id)
        return Fresh().of(login_id, secret, context)


def test_one_secret_that_cannot_be_measured_stops_nothing() -> None:
    logins = [login("one", "dragon1"), login("two", "dragon1"), login("other", "kettle9")]
    unmeasured: list[str] = []
    numbers: dict[str, float] = {}
    found = audit(
        logins,
        now=NOW,
        corpus=None,
        measures=FailsOn("two"),
        unmeasured=unmeasured,
        guess_numbers=numbers,
    )
    assert unmeasured == ["two"]
    assert numbers.keys() == {"one", "other"}
    kinds = {(f.kind, f.login_id) for f in found}
    assert (FindingKind.WEAK, "other") in kinds
    assert (FindingKind.REUSED, "two") in kinds
    assert (FindingKind.WEAK, "two") not in kinds


@pytest.mark.parametrize(("guesses", "is_weak"), [(1.0, True), (10.0, True), (10.01, False)])
def test_weak_is_what_ten_thousand_million_guesses_reach(guesses: float, is_weak: bool) -> None:
    one = Measured(login("one", "x"), "word", guesses)
    assert bool(list(weak([one]))) is is_weak


def test_a_mailbox_or_money_is_important_where_its_user_did_not_say() -> None:
    def of(title: str, *, resets: bool = False, own: Importance = Importance.NORMAL) -> str:
        found, why = importance_of(
            login("a", None, title=title, importance=own), resets_others=resets
        )
        return f"{found.value}: {why}"

    assert of("Gaffer Savings") == "high: money, by its title"
    assert of("Bankside Rigging") == "normal: "
    assert of("Post", resets=True) == "high: a mailbox that resets others"
    assert of("Bank", resets=True, own=Importance.LOW) == "low: "


def test_an_address_that_is_none_is_not_told_to_be_plain() -> None:
    odd = login("odd", "vWq81-xPlM", address="http://[odd/")
    assert [f for f in audit([odd], now=NOW, corpus=None) if f.kind is FindingKind.PLAIN_HTTP] == []


@pytest.mark.parametrize(
    ("secret", "room", "found"),
    [
        ("kd8fm2qz", 40, True),
        # Half of the room is used, or there is no room to speak of, or it is weak already.
        ("kd8fm2qz", 16, False),
        ("kd8fm2qz", 19, False),
        ("kd8fm21987", 20, True),
        ("kd8fm21987!", 20, False),
        ("lantern7", 40, False),
    ],
)
def test_far_below_what_a_site_takes_is_told_within_its_bounds(
    secret: str, room: int, found: bool
) -> None:
    one = login("roomy", secret, policy=rules(room), policy_name="Roomy")
    kinds = [f.kind for f in audit([one], now=NOW, corpus=None)]
    assert (FindingKind.OFF_POLICY in kinds) is found
