"""The report: the worklist by owner, folder or kind, for those in charge of shared logins."""

from datetime import datetime
from enum import StrEnum

from newknot.core.audit import Finding
from newknot.core.audit.finding import KINDS
from newknot.core.login import LoginCard
from newknot.exchange.findings_report import ReportLine
from newknot.store.vault import Vault
from newknot.usecases.check.standing import standing


class GroupedBy(StrEnum):
    """What the lines of a report stand together by."""

    OWNER = "owner"
    FOLDER = "folder"
    KIND = "kind"


def report(
    vault: Vault, grouped_by: GroupedBy, *, with_user_names: bool, now: datetime
) -> list[ReportLine]:
    """A line for each finding that stands and is not accepted, gravest first within its group."""
    found = standing(vault, now=now)
    lines = [
        _line(finding, found.cards, grouped_by, with_user_names=with_user_names)
        for finding in found.to_do
        if finding.login_id in found.cards
    ]
    return sorted(lines, key=lambda line: line.group.casefold())


def _line(
    finding: Finding, cards: dict[str, LoginCard], grouped_by: GroupedBy, *, with_user_names: bool
) -> ReportLine:
    card = cards[finding.login_id]
    facts = KINDS[finding.kind]
    group = {
        GroupedBy.OWNER: card.owner or "Your own",
        GroupedBy.FOLDER: card.folder or "In no folder",
        GroupedBy.KIND: facts.title,
    }[grouped_by]
    evidence = finding.evidence
    if not with_user_names:
        for other in (cards[i] for i in finding.others if i in cards):
            if other.user_name:
                evidence = evidence.replace(f", {other.user_name}", "")
    user_name = card.user_name if with_user_names else ""
    return ReportLine(
        group, card.title, user_name, card.address, facts.title, evidence, facts.to_do
    )
