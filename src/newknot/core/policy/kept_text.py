"""What a site keeps of a secret: less than was typed, where it cuts it or takes its case as one."""

from newknot.core.policy.folding import folded
from newknot.core.policy.site_policy import SitePolicy


def kept_text(policy: SitePolicy | None, text: str) -> str:
    """The part of a text that opens the site, in lower case where the site folds it."""
    if policy is None:
        return text
    kept = text[: policy.keeps_first] if policy.keeps_first is not None else text
    return folded(kept) if policy.folds_case else kept


def kept_says(policy: SitePolicy | None, text: str) -> str:
    """What the site does to this text, in words; empty where it keeps it as it is."""
    if policy is None or kept_text(policy, text) == text:
        return ""
    said: list[str] = []
    if policy.keeps_first is not None and policy.keeps_first < len(text):
        said.append(f"keeps only the first {policy.keeps_first} of {len(text)} characters")
    if policy.folds_case:
        said.append("takes upper and lower case as one")
    return f"its site {' and '.join(said)}"
