"""Which rules of a policy a given text breaks, and where."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import groupby

from newknot.core.policy.character_classes import members
from newknot.core.policy.folding import folded, step
from newknot.core.policy.policy_rules import PolicyRules


@dataclass(frozen=True, slots=True)
class Violation:
    """One broken rule: the policy's field, a plain sentence, and the stretch [start, end)."""

    rule: str
    says: str
    start: int | None = None
    end: int | None = None


def violations(policy: PolicyRules, text: str) -> tuple[Violation, ...]:
    """Every rule of the policy that the text breaks. The sentences never quote the text."""
    return tuple(_all(policy, text))


def _all(policy: PolicyRules, text: str) -> Iterator[Violation]:
    n = len(text)
    if n < policy.min_length:
        yield Violation("min_length", f"shorter than {policy.min_length}")
    if n > policy.max_length:
        yield Violation("max_length", f"longer than {policy.max_length}", policy.max_length, n)
    yield from _characters(policy, text)
    yield from _runs(policy, text)
    if text and policy.first_from is not None and text[0] not in policy.first_from:
        yield Violation("first_from", "may not begin with this character", 0, 1)
    if text and policy.last_from is not None and text[-1] not in policy.last_from:
        yield Violation("last_from", "may not end with this character", n - 1, n)
    lowered = folded(text)
    for word in policy.forbidden:
        at = lowered.find(folded(word))
        if at >= 0:
            yield Violation("forbidden", "holds a forbidden text", at, at + len(word))


def _characters(policy: PolicyRules, text: str) -> Iterator[Violation]:
    classes = policy.usable_classes()
    allowed = {c for one in classes for c in one.characters}
    for i, c in enumerate(text):
        if c not in allowed:
            rule = "excluded" if c in policy.excluded else "classes"
            yield Violation(
                rule, f"{_kind(c)}, the {_nth(i + 1)} character, is not taken", i, i + 1
            )
    present = 0
    for one in classes:
        count = sum(c in one.characters for c in text)
        present += count > 0
        if count < one.minimum:
            few = f"fewer than {one.minimum} " if one.minimum > 1 else "no "
            yield Violation("classes", few + members(one.name))
        if one.maximum is not None and count > one.maximum:
            yield Violation("classes", f"more than {one.maximum} {members(one.name)}")
    if present < policy.min_classes:
        yield Violation("min_classes", f"fewer than {policy.min_classes} kinds of character")
    uses = 1 if policy.distinct else policy.max_uses
    if uses is not None and text and max(Counter(text).values()) > uses:
        rule = "distinct" if policy.distinct else "max_uses"
        yield Violation(rule, f"a character more than {uses} times")


def _kind(c: str) -> str:
    """What a character is, without saying which."""
    if c.isspace():
        return "a blank"
    if c.isalpha():
        return "a letter" if c.isascii() else "a letter beyond a to z"
    return "a digit" if c.isdigit() else "a symbol"


def _nth(n: int) -> str:
    ending = "th" if n % 100 in (11, 12, 13) else {1: "st", 2: "nd", 3: "rd"}.get(n % 10, "th")
    return f"{n}{ending}"


def _runs(policy: PolicyRules, text: str) -> Iterator[Violation]:
    if policy.max_identical_run is not None:
        at = 0
        for _, group in groupby(text):
            size = len(list(group))
            if size > policy.max_identical_run:
                yield Violation(
                    "max_identical_run",
                    f"more than {policy.max_identical_run} alike in a row",
                    at,
                    at + size,
                )
            at += size
    if policy.max_sequence_run is not None:
        for start, end in _sequences(text):
            if end - start > policy.max_sequence_run:
                yield Violation(
                    "max_sequence_run",
                    f"a sequence of more than {policy.max_sequence_run}",
                    start,
                    end,
                )


def _sequences(text: str) -> Iterator[tuple[int, int]]:
    """Maximal stretches [start, end) that go up, or down, by one; single characters included."""
    start, direction = 0, 0
    for i in range(1, len(text) + 1):
        by = step(text[i - 1], text[i]) if i < len(text) else 0
        if by and direction in (0, by):
            direction = by
            continue
        yield start, i
        start, direction = (i - 1, by) if by else (i, 0)
