"""Builds the demo vault once, through the use cases, with a past of three years."""

import json
import os
import random
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from functools import partial
from hashlib import sha1
from pathlib import Path
from urllib.parse import urlsplit

from newknot.core.audit import FindingKind
from newknot.core.audit.waiver import WaiverReason
from newknot.core.calendar_day import day_of
from newknot.core.generate import PasswordSpace
from newknot.core.login import Importance, LoginCard, Origin, PlainField, SecondFactor
from newknot.core.policy import SitePolicy
from newknot.core.rotation import RotationEvent
from newknot.core.safeguards import Safeguards
from newknot.core.secret import Secret
from newknot.core.shipped import shipped_lines
from newknot.crypto import INTERACTIVE
from newknot.demo.people_and_places import (
    BREACHED,
    HELD_ELSEWHERE,
    LOGINS,
    NOTICES,
    PRACTICE,
    TRADE_WORDS,
    DemoLogin,
)
from newknot.demo.practice import PracticeSites
from newknot.demo.site_policies import LEARNED, OFFER_SECOND_FACTOR, POLICIES
from newknot.store.corpus import Corpus
from newknot.store.corpus_build import HashList, build_corpus
from newknot.store.vault import Vault
from newknot.usecases.check.checks import run_check
from newknot.usecases.check.corpora import AskedList
from newknot.usecases.check.waivers import give_waivers
from newknot.usecases.clock import Clock
from newknot.usecases.drawing.draw_ring import DrawRing
from newknot.usecases.drawing.drawing import best_length, draw_password
from newknot.usecases.drawing.space_shelf import SpaceShelf
from newknot.usecases.logins.logins import LoginDraft, NewSecret, add_login, edit_login
from newknot.usecases.logins.loose_ends import keep_draw
from newknot.usecases.policies import default_policy, policy_for, save_policy
from newknot.usecases.progress import Progress
from newknot.usecases.rotation.rotations import StageWish, begin_rotation, hand_out, take_event
from newknot.usecases.vault.first_hour import end_first_hour
from newknot.usecases.vault.safeguards import change_safeguards
from newknot.usecases.vault.vault_passphrase import note_passphrase

__all__ = ["PASSPHRASE", "PracticeSites", "prepare"]

PASSPHRASE = "copper truss winter ledger moth"  # noqa: S105 - it is printed at every start
SEED = 20260
LIST_NAME = "practice list"
LIST_DATED_ON = date(2026, 5, 1)
TRADE_NAME = "stage trade list"
TRADE_DATED_ON = date(2025, 11, 1)
WAIVED = (
    (
        FindingKind.PLAIN_HTTP,
        "Bellows router",
        WaiverReason.COVERED,
        "Only reached from the house, over the cable.",
    ),
    (
        FindingKind.OVERDUE,
        "Slate Payroll",
        WaiverReason.NOT_MINE,
        "Accounts set it for all of us; asked Maud in spring.",
    ),
)
CHECKED_DAYS_AGO = (690, 520, 395, 300, 215, 130, 70, 9)


@dataclass(frozen=True, slots=True)
class Prepared:
    """Where the demo's vault and corpora lie."""

    vault_path: Path
    corpus_paths: tuple[Path, ...]


class SeededRandom:
    """The same draws each time: for made-up secrets alone."""

    def __init__(self, seed: int) -> None:
        self._random = random.Random(seed)  # noqa: S311 - nothing of it guards anything

    def randbelow(self, n: int, /) -> int:
        """A reproducible integer in [0, n)."""
        return self._random.randrange(n)


def prepare(folder: Path, *, sites: PracticeSites, clock: Clock) -> Prepared:
    """Builds what is missing; what is there is left as the user has made it."""
    practice, trade = folder / "practice-list.corpus", folder / "trade-list.corpus"
    prepared = Prepared(folder / "ilse-quist.vault", (practice, trade))
    if not practice.exists():
        _build_list(folder, practice)
    if not trade.exists():
        _build_words(folder, trade)
    if not prepared.vault_path.exists():
        building = folder / "building.vault"
        for leftover in folder.glob("building.vault*"):
            leftover.unlink()
        vault = Vault.create(
            building, passphrase=PASSPHRASE, parameters=INTERACTIVE, state_folder=folder / "state"
        )
        try:
            note_passphrase(vault, PASSPHRASE, now=clock.now())
            corpora = [Corpus.open(path) for path in prepared.corpus_paths]
            fill(vault, corpora=corpora, sites=sites, now=clock.now())
        finally:
            vault.close()
        os.replace(building, prepared.vault_path)  # noqa: PTH105 - one step, closed file
    return prepared


def fill(vault: Vault, *, corpora: Sequence[Corpus], sites: PracticeSites, now: datetime) -> None:
    """The logins with their past, policies, rotations, loose ends, and a check."""
    drawn = SeededRandom(SEED)
    for name, domains, document in POLICIES:
        save_policy(
            vault,
            policy_id=None,
            name=name,
            domains=domains,
            policy=SitePolicy.from_dict(document),
            source=LEARNED.get(name, "typed"),
            now=now - timedelta(days=900),
            offers_second_factor=name in OFFER_SECOND_FACTOR,
        )
    change_safeguards(
        vault,
        Safeguards(
            range_address=sites.address("ranges"),
            mail_address=sites.address("mailtray", "/mails.json"),
            mail_used=True,
            feed_address=sites.address("notices", "/feed.json"),
        ),
        own_port=0,
    )
    # It is a vault of years.
    end_first_hour(vault)
    cards: dict[str, LoginCard] = {}
    for days_ago, act in _past(vault, cards, drawn, corpora=corpora, sites=sites, now=now):
        act(now - timedelta(days=days_ago, hours=days_ago % 11))
    for demo in (*LOGINS, *PRACTICE):
        _name_mailbox(vault, demo, cards, now)
    ring = DrawRing()
    for days, address in ((3, "https://lumensociety.example"), (0, "")):
        draw = draw_password(ring, SpaceShelf(), drawn, default_policy(), length=20, now=now)
        keep_draw(vault, draw, address=address, now=now - timedelta(days=days, hours=1))
    _check(vault, corpora, now)
    for kind, title, reason, note in WAIVED:
        accepted = [(kind, cards[title].login_id)]
        give_waivers(vault, accepted, reason=reason, note=note, until_on=None, now=now)


Act = Callable[[datetime], None]


def _past(
    vault: Vault,
    cards: dict[str, LoginCard],
    drawn: SeededRandom,
    *,
    corpora: Sequence[Corpus],
    sites: PracticeSites,
    now: datetime,
) -> list[tuple[int, Act]]:
    """Everything that happened, oldest first, each with its age in days."""
    past: list[tuple[int, Act]] = []
    for demo in (*LOGINS, *PRACTICE):
        for text, age_days in (*demo.earlier, (demo.secret, demo.age_days)):
            past.append(
                (age_days, partial(_set, vault, demo, text, age_days, cards, drawn, sites, now))
            )
    past.append((200, lambda at: _given_up(vault, cards["Wren Music"], drawn, at)))
    past.append((40, lambda at: _rotated(vault, cards["Moth Lane Lamps"], drawn, at)))
    past.append((2, lambda at: _left_open(vault, cards["Plot Drawings"], drawn, at)))
    for days_ago in CHECKED_DAYS_AGO:
        past.append((days_ago, lambda at: _check(vault, corpora, at)))
    return sorted(past, key=lambda one: -one[0])


def _check(vault: Vault, corpora: Sequence[Corpus], at: datetime) -> None:
    lists = [AskedList(one, one.title) for one in corpora]
    run_check(vault, lists=lists, progress=Progress(), now=at)


def _set(
    vault: Vault,
    demo: DemoLogin,
    text: str,
    age_days: int,
    cards: dict[str, LoginCard],
    drawn: SeededRandom,
    sites: PracticeSites,
    now: datetime,
    at: datetime,
) -> None:
    """A login's first secret, or the one that followed."""
    address = demo.address.format(port=sites.port)
    draft = _draft(demo, address, now)
    secret = _secret(vault, text, address, demo.length, drawn)
    known = cards.get(demo.title)
    if known is None:
        cards[demo.title] = add_login(vault, draft, secret, now=at)
    else:
        cards[demo.title] = edit_login(vault, known.login_id, draft, secret, now=at)
    if demo in PRACTICE and age_days == demo.age_days:
        host = urlsplit(address).hostname or ""
        sites.sign_up(host, demo.user_name, secret.secret.reveal())


def _name_mailbox(
    vault: Vault, demo: DemoLogin, cards: dict[str, LoginCard], now: datetime
) -> None:
    """Which mailbox can reset it, now that every login is there."""
    if demo.resets_by:
        card = cards[demo.title]
        draft = replace(_draft(demo, card.address, now), resets_by=cards[demo.resets_by].login_id)
        edit_login(vault, card.login_id, draft, None, now=card.changed_at)


def _draft(demo: DemoLogin, address: str, now: datetime) -> LoginDraft:
    return LoginDraft(
        title=demo.title,
        user_name=demo.user_name,
        address=address,
        notes=demo.notes,
        fields=tuple(PlainField(name, value) for name, value in demo.fields),
        secret_fields=tuple((name, Secret(value)) for name, value in demo.secret_fields),
        folder=demo.folder,
        owner=demo.owner,
        tags=demo.tags,
        importance=Importance(demo.importance),
        second_factor=SecondFactor(demo.second_factor),
        code_key=Secret(demo.code_key) if demo.code_key else None,
        expires_on=None
        if demo.expires_in_days is None
        else day_of(now + timedelta(days=demo.expires_in_days)),
    )


def _secret(vault: Vault, text: str, address: str, length: int, drawn: SeededRandom) -> NewSecret:
    if text:
        return NewSecret(Secret(text), Origin("own"))
    named = policy_for(vault, address)
    policy = named.policy if named is not None else default_policy()
    space = PasswordSpace(policy, best_length(policy, wished=length))
    return NewSecret(Secret(space.draw(drawn)), Origin("drawn", space.entropy_bits))


def _rotated(vault: Vault, card: LoginCard, drawn: SeededRandom, at: datetime) -> None:
    rotation = begin_rotation(vault, card.login_id, StageWish(), random=drawn, now=at)
    hand_out(vault, rotation.rotation_id, now=at + timedelta(minutes=1))
    for minutes, event in ((3, RotationEvent.ACCEPT), (5, RotationEvent.VERIFY)):
        when = at + timedelta(minutes=minutes)
        take_event(vault, rotation.rotation_id, event, now=when)


def _given_up(vault: Vault, card: LoginCard, drawn: SeededRandom, at: datetime) -> None:
    rotation = begin_rotation(vault, card.login_id, StageWish(), random=drawn, now=at)
    hand_out(vault, rotation.rotation_id, now=at + timedelta(minutes=1))
    when = at + timedelta(minutes=4)
    take_event(vault, rotation.rotation_id, RotationEvent.REFUSE, refusal="site was down", now=when)
    take_event(vault, rotation.rotation_id, RotationEvent.GIVE_UP, now=when)


def _left_open(vault: Vault, card: LoginCard, drawn: SeededRandom, at: datetime) -> None:
    rotation = begin_rotation(vault, card.login_id, StageWish(), random=drawn, now=at)
    hand_out(vault, rotation.rotation_id, now=at + timedelta(minutes=2))


def _build_list(folder: Path, target: Path) -> None:
    """A sample corpus: common passwords with counts that fall with their rank, made up."""
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    counts = {
        word: max(1, round(3_000_000 / (rank + 20) ** 0.95))
        for rank, word in enumerate(shipped_lines("common_passwords.txt.gz"))
    }
    counts.update(BREACHED)
    source = folder / "practice-list.txt"
    with open(source, "w", encoding="ascii") as lines:
        for word, count in counts.items():
            lines.write(f"{_sha1(word)}:{count}\n")
    build_corpus([HashList(source)], target, name=LIST_NAME, dated_on=LIST_DATED_ON)
    source.unlink()


def _build_words(folder: Path, target: Path) -> None:
    """A second corpus, from plain words."""
    source = folder / "trade-list.txt"
    source.write_text("\n".join(TRADE_WORDS) + "\n", "utf-8")
    lists = [HashList(source, words=True)]
    build_corpus(lists, target, name=TRADE_NAME, dated_on=TRADE_DATED_ON)
    source.unlink()


def write_outside(sites: PracticeSites, *, now: datetime) -> None:
    """What the stand-ins of services serve: a list held elsewhere, and notices of late."""
    sites.ranges.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    if not sites.ranges.exists():
        lines = [f"{_sha1(word)}:{count}\n" for word, count in HELD_ELSEWHERE]
        lines += [f"{_sha1(f'made up {i}')}:{1 + i % 90}\n" for i in range(20_000)]
        sites.ranges.write_text("".join(lines), "ascii")
    if not sites.notices.exists():
        items = [
            {
                "id": f"whistle-{i}",
                "title": f"{site}: {', '.join(taken) or 'something'} taken",
                "content_text": "A made-up notice.",
                "_notice": {
                    "site": site,
                    "breached_on": (now - timedelta(days=days)).date().isoformat(),
                    "taken": list(taken),
                },
            }
            for i, (site, days, taken) in enumerate(NOTICES)
        ]
        sites.notices.write_text(json.dumps(items), "utf-8")


def _sha1(word: str) -> str:
    return sha1(word.encode("utf-8"), usedforsecurity=False).hexdigest()
