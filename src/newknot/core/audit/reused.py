"""Reused: the same secret at more than one login, or one that is the same as its site keeps it."""

from collections.abc import Iterable, Iterator, Mapping, Sequence

from newknot.core.audit.audited import Measured, finding_of
from newknot.core.audit.finding import Finding, FindingKind
from newknot.core.calendar_day import day_of
from newknot.core.policy.kept_text import kept_says, kept_text


def by_secret(logins: Sequence[Measured]) -> dict[str, list[Measured]]:
    """The logins of each secret that there is, as their sites keep it; linear in logins."""
    groups: dict[str, list[Measured]] = {}
    for one in logins:
        if (secret := one.login.secret) is None:
            continue
        text = secret.reveal()
        # Of ten thousand, those of which no site is known are not asked for what it keeps.
        if one.login.policy is not None:
            text = kept_text(one.login.policy, text)
        if text:
            groups.setdefault(text, []).append(one)
    return groups


def same_secret(of_secrets: Mapping[str, list[Measured]]) -> list[list[Measured]]:
    """Groups of more than one login that share a secret as it is typed, or as it is kept, directly
    or through others. of_secrets: as `by_secret` gives them.
    """
    return [
        one
        for one in _joined(of_secrets)
        if len(one) > 1 and len({m.login.login_id for m in one}) > 1
    ]


def _joined(of_secrets: Mapping[str, list[Measured]]) -> Iterable[list[Measured]]:
    """Those of one secret together with those of which it is what their sites keep."""
    # What is typed whole at one site may be cut at another.
    typed = [
        (kept, text)
        for kept, group in of_secrets.items()
        for one in group
        if one.login.policy is not None and (text := _typed(one)) != kept
    ]
    if not typed:
        return of_secrets.values()
    parent: dict[str, str] = {}

    def root(text: str) -> str:
        while (above := parent.get(text, text)) != text:
            parent[text] = above = parent.get(above, above)
            text = above
        return text

    for kept, text in typed:
        parent[root(text)] = root(kept)
    joined: dict[str, list[Measured]] = {}
    for kept, group in of_secrets.items():
        joined.setdefault(root(kept), []).extend(group)
    return joined.values()


def reused(group: Sequence[Measured]) -> Iterator[Finding]:
    """One finding for each secret of a group that shares one."""
    ids = tuple(dict.fromkeys(one.login.login_id for one in group))
    # From when the second of them had it.
    since = day_of(sorted(one.login.secret_since_at for one in group)[1])
    by_typed: dict[str, list[Measured]] = {}
    for one in group:
        by_typed.setdefault(_typed(one), []).append(one)
    for one in group:
        beside = [*by_typed[_typed(one)][:2], *group]
        other = next(o for o in beside if o.login.login_id != one.login.login_id)
        more = len(ids) - 2
        ending = f" and {more} other{'s' if more > 1 else ''}" if more else ""
        said = f"Same as {_named(one, other)}{ending}{_cut(one, other)}, since {since:%B %Y}"
        yield finding_of(one, FindingKind.REUSED, said, others=ids[:50])


def _named(one: Measured, other: Measured) -> str:
    title = other.login.title
    if title == one.login.title:
        title = f"{title}, {other.login.user_name}"
    return f"“{other.login.field}” of {title}" if other.login.field else title


def _cut(one: Measured, other: Measured) -> str:
    """Why two that are typed otherwise are one."""
    if _typed(one) == _typed(other):
        return ""
    for login, whose in ((one.login, "its"), (other.login, f"{other.login.title}'s")):
        assert login.secret is not None
        says = kept_says(login.policy, login.secret.reveal())
        if says:
            return f", since {says}" if whose == "its" else f", since {whose}{says[3:]}"
    return " through others"


def _typed(one: Measured) -> str:
    secret = one.login.secret
    return secret.reveal() if secret is not None else ""
