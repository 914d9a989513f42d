"""The newest draws of this session, so that earlier ones can be stepped back to.

They lie sealed under a key that is made at unlock and dropped at lock; at a lock they are written
into the vault once, and are there again when it is opened. Once a draw leaves the page it is a
loose end, and that is on disk first.
"""

import secrets
from collections import OrderedDict
from collections.abc import Iterable
from dataclasses import dataclass, field
from datetime import datetime
from threading import Lock
from typing import Any, Literal

from newknot.core.generate.looked_at import LookedAt
from newknot.core.login import Origin
from newknot.core.secret import Secret
from newknot.crypto import new_vault_key, open_sealed, seal
from newknot.store.record_json import packed, unpacked
from newknot.usecases.errors import DrawUnknown

KEPT = 20
ASIDE = 6
"""The last two comparisons of three kinds."""
STEP_BYTES = 512
DrawKind = Literal["characters", "words", "sentence", "pin", "line"]


@dataclass(frozen=True, slots=True)
class DrawFacts:
    """What is known of a draw beside its text.

    space_size_log10: log10 of the number of texts it was drawn from, or of the guesses that reach
    a chosen one. whole_bits: of the draw, before what choosing among draws costs.
    is_exact: whether that number is exact or a proven lower bound. notes: what differs from the
    wish, as sentences. looked_at: the draws that it was chosen among.
    """

    kind: DrawKind
    origin: Origin
    space_size_log10: float
    whole_bits: float | None = None
    is_exact: bool = True
    notes: tuple[str, ...] = ()
    looked_at: LookedAt = field(default_factory=LookedAt)


@dataclass(frozen=True, slots=True)
class Draw:
    """One draw. words: the list words of a passphrase, else none."""

    draw_id: str
    secret: Secret = field(repr=False)
    words: tuple[str, ...] = field(repr=False)
    drawn_at: datetime
    facts: DrawFacts


@dataclass(frozen=True, slots=True)
class _Kept:
    sealed: bytes
    length: int
    drawn_at: datetime
    facts: DrawFacts


class DrawRing:
    """At most so many draws. changed: since they were last read from a vault, or written.

    aside: what is shown beside a draw, and comes into the ring once it is taken.
    """

    def __init__(self, most: int = KEPT, *, aside: "DrawRing | None" = None) -> None:
        self.changed = False
        self.aside = aside
        self._most = most
        self._kept: OrderedDict[str, _Kept] = OrderedDict()
        self._key = new_vault_key(secrets.token_bytes)
        self._lock = Lock()

    def add(
        self,
        secret: Secret,
        facts: DrawFacts,
        *,
        now: datetime,
        words: tuple[str, ...] = (),
        draw_id: str = "",
    ) -> Draw:
        """Keeps a draw, letting the oldest go. draw_id: where it has one already."""
        draw_id = draw_id or secrets.token_hex(16)
        sealed = seal(
            self._key,
            packed({"secret": secret.reveal(), "words": list(words)}),
            bound_to=draw_id.encode(),
            step=STEP_BYTES,
            random_bytes=secrets.token_bytes,
        )
        with self._lock:
            self._kept[draw_id] = _Kept(sealed, len(secret), now, facts)
            self.changed = True
            while len(self._kept) > self._most:
                self._kept.popitem(last=False)
        return Draw(draw_id, secret, words, now, facts)

    def get(self, draw_id: str) -> Draw:
        """A kept draw; from aside it is then one of the ring. Raises `DrawUnknown`."""
        with self._lock:
            kept = self._kept.get(draw_id)
        if kept is None and self.aside is not None:
            one = self.aside.get(draw_id)
            self.aside.drop(draw_id)
            return self.add(
                one.secret, one.facts, now=one.drawn_at, words=one.words, draw_id=draw_id
            )
        if kept is None:
            raise DrawUnknown()
        text = unpacked(open_sealed(self._key, kept.sealed, bound_to=draw_id.encode()))
        return Draw(
            draw_id, Secret(text["secret"]), tuple(text["words"]), kept.drawn_at, kept.facts
        )

    def before(self, draw_id: str) -> Draw:
        """The draw before another. Raises `DrawUnknown` where there is none."""
        with self._lock:
            ids = list(self._kept)
        if draw_id not in ids or ids.index(draw_id) == 0:
            raise DrawUnknown()
        return self.get(ids[ids.index(draw_id) - 1])

    def listed(self) -> list[tuple[str, int, datetime, DrawFacts]]:
        """(id, length, when, facts) of each, newest first; no secret is opened."""
        with self._lock:
            kept = list(self._kept.items())
        return [(i, one.length, one.drawn_at, one.facts) for i, one in reversed(kept)]

    def drop(self, draw_id: str) -> None:
        """Lets one go, if it is still kept."""
        with self._lock:
            self._kept.pop(draw_id, None)
            self.changed = True

    def documents(self) -> list[dict[str, Any]]:
        """All of them, oldest first, to be sealed elsewhere."""
        with self._lock:
            ids = list(self._kept)
        return [_document_of(self.get(draw_id)) for draw_id in ids]

    def fill(self, documents: Iterable[dict[str, Any]]) -> None:
        """With those of before a lock; each under a new id."""
        for one in documents:
            secret, words = Secret(one["secret"]), tuple(one["words"])
            drawn_at = datetime.fromisoformat(one["drawn_at"])
            self.add(secret, _facts_of(one), now=drawn_at, words=words)
        self.changed = False

    def clear(self) -> None:
        """Lets all go, and the key; what comes after is under a new one."""
        with self._lock:
            self._kept.clear()
            self.changed = False
            if self.aside is not None:
                self.aside.clear()
            self._key = new_vault_key(secrets.token_bytes)


def _document_of(draw: Draw) -> dict[str, Any]:
    facts, looked_at = draw.facts, draw.facts.looked_at
    return {
        "secret": draw.secret.reveal(),
        "words": list(draw.words),
        "drawn_at": draw.drawn_at.isoformat(),
        "kind": facts.kind,
        "origin": [facts.origin.kind, facts.origin.entropy_bits],
        "space_size_log10": facts.space_size_log10,
        "whole_bits": facts.whole_bits,
        "is_exact": facts.is_exact,
        "notes": list(facts.notes),
        "looked_at": [looked_at.parts, looked_at.ends, looked_at.acts, looked_at.redrawn],
    }


def _facts_of(document: dict[str, Any]) -> DrawFacts:
    return DrawFacts(
        document["kind"],
        Origin(*document["origin"]),
        document["space_size_log10"],
        document["whole_bits"],
        document["is_exact"],
        tuple(document["notes"]),
        LookedAt(*document["looked_at"]),
    )
