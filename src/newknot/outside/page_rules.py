"""The policy that a form of a foreign page states, read by a limited child."""

from pathlib import Path

from newknot.core.policy import SitePolicy
from newknot.core.policy.site_policy import PolicyInvalid
from newknot.outside.limited_child import ChildFailed, run_limited

_READER = Path(__file__).with_name("rules_reader.py")
READING_S = 5.0


def read_page_rules(rules_text: str) -> SitePolicy | None:
    """None where the text states none that a policy could be, or could not be read in time."""
    try:
        found = run_limited(_READER, rules_text.encode("utf-8"), within_s=READING_S, alone=False)
        return SitePolicy.from_dict(found["document"])
    except (ChildFailed, PolicyInvalid, KeyError, TypeError):
        return None
