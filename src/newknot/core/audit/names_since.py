"""Findings that name another login by the title that it had when it was checked."""

import re
from collections.abc import Collection, Mapping
from dataclasses import replace

from newknot.core.audit.check_result import CheckResult
from newknot.core.audit.finding import Finding
from newknot.core.login import LoginCard

MORE = r"(?: and \d+ others?)?"
"""What a finding says after the first name."""


class Names:
    """Logins that have another title than findings name them by."""

    def __init__(
        self, result: CheckResult, cards: Mapping[str, LoginCard], changed: Collection[str]
    ) -> None:
        self._then = result.titles
        self._now = {
            one: cards[one].title
            for one in changed
            if self._then.get(one, cards[one].title) != cards[one].title
        }

    def may_be_other(self, finding: Finding) -> bool:
        """Whether the finding may name one of them."""
        return not self._now.keys().isdisjoint(finding.others)

    def current(self, finding: Finding) -> Finding:
        """The finding with the title that the login has which it names."""
        if not self.may_be_other(finding):
            return finding
        said = finding.evidence
        begun = re.match(r"(?:“.*?”: )?(?:same as |like )(?:“.*?” of )?", said, re.IGNORECASE)
        head, rest = (said[: begun.end()], said[begun.end() :]) if begun else ("", said)
        others = (one for one in finding.others if one != finding.login_id)
        # Of titles of which one begins with another, the longer is meant; what is so still, stays.
        named = max(
            (one for one in others if _is_named(self._then.get(one), rest)),
            key=lambda one: (len(self._then[one]), one not in self._now),
            default="",
        )
        if named not in self._now:
            return finding
        then, now = self._then[named], self._now[named]
        rest = rest[len(then) :].replace(f", since {then}'s ", f", since {now}'s ")
        return replace(finding, evidence=f"{head}{now}{rest}")


def _is_named(title: str | None, rest: str) -> bool:
    if title is None or not rest.startswith(title):
        return False
    return re.match(rf"{MORE}[,:]", rest[len(title) :]) is not None
