"""A site policy: the rules of one site, with their JSON form and what breaks them."""

from collections.abc import Mapping
from dataclasses import dataclass, fields
from typing import Any

from newknot.core.policy.policy_document import PolicyInvalid, read_rules_of
from newknot.core.policy.policy_rules import LENGTH_LIMIT, CharacterClass, PolicyRules
from newknot.core.policy.violations import Violation, violations

__all__ = ["LENGTH_LIMIT", "CharacterClass", "PolicyInvalid", "SitePolicy"]


@dataclass(frozen=True, slots=True)
class SitePolicy(PolicyRules):
    """The rules of one site."""

    @staticmethod
    def from_dict(document: Mapping[str, Any]) -> "SitePolicy":
        """The policy of a JSON document. Raises `PolicyInvalid` naming the field at fault."""
        return SitePolicy(**read_rules_of(document))

    def to_dict(self) -> dict[str, Any]:
        """The JSON form; `from_dict` reads it back the same."""
        document: dict[str, Any] = {f.name: getattr(self, f.name) for f in fields(self)}
        document["classes"] = [
            {
                "name": c.name,
                "characters": c.characters,
                "minimum": c.minimum,
                **({} if c.maximum is None else {"maximum": c.maximum}),
            }
            for c in self.classes
        ]
        document["forbidden"] = list(self.forbidden)
        return document

    def violations(self, secret: str) -> tuple[Violation, ...]:
        """Every rule that the text breaks, with where."""
        return violations(self, secret)
