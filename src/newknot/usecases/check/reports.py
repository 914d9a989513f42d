"""The report: the worklist by owner, folder or kind, for those in charge of shared logins."""

from datetime import datetime
from enum import StrEnum

from newknot.core.audit import Finding
from newknot.core.audit.finding import KINDS
from newknot.core.login import LoginCard
from newknot.core.loose_end import LooseEnd
from newknot.exchange.findings_report import ReportLine
from newknot.store.vault import Vault
from newknot.usecases.check.standing import standing

OF_NOBODY, IN_NO_FOLDER = "Your own", "In no folder"


class GroupedBy(StrEnum):
    """What the lines of a report stand together by."""

    OWNER = "owner"
    FOLDER = "folder"
    KIND = "kind"


def report(
    vault: Vault, grouped_by: GroupedBy, *, with_user_names: bool, now: datetime
) -> list[ReportLine]:
    """A line for each finding that stands and is not accepted, gravest first within its group: as
    many as the worklist has.
    """
    found = standing(vault, now=now)
    lines = [
        _line(finding, found.cards, grouped_by, with_user_names=with_user_names)
        if finding.login_id in found.cards
        else _loose_end(finding, found.loose_ends[finding.login_id], grouped_by)
        for finding in found.to_do
    ]
    return sorted(lines, key=lambda line: line.group.casefold())


def _loose_end(finding: Finding, one: LooseEnd, grouped_by: GroupedBy) -> ReportLine:
    facts = KINDS[finding.kind]
    group = {
        GroupedBy.OWNER: OF_NOBODY,
        GroupedBy.FOLDER: IN_NO_FOLDER,
        GroupedBy.KIND: facts.title,
    }[grouped_by]
    to_do = "Save it as a login, or let it go."
    return ReportLine(group, "Loose end", "", one.address, facts.title, finding.evidence, to_do)


def _line(
    finding: Finding, cards: dict[str, LoginCard], grouped_by: GroupedBy, *, with_user_names: bool
) -> ReportLine:
    card = cards[finding.login_id]
    facts = KINDS[finding.kind]
    group = {
        GroupedBy.OWNER: card.owner or OF_NOBODY,
        GroupedBy.FOLDER: card.folder or IN_NO_FOLDER,
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
