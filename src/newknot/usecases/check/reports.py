"""The report: the worklist by owner, folder or kind, for those in charge of shared logins."""

from datetime import datetime
from enum import StrEnum

from newknot.core.audit import Finding, FindingKind
from newknot.core.login import LoginCard
from newknot.exchange.findings_report import ReportLine
from newknot.store.vault import Vault
from newknot.usecases.check.standing import standing


class GroupedBy(StrEnum):
    """What the lines of a report stand together by."""

    OWNER = "owner"
    FOLDER = "folder"
    KIND = "kind"


_KINDS = {
    FindingKind.BREACHED: ("Breached", "Change it now, here and wherever else it is used."),
    FindingKind.UNEXPLAINED_CHANGE: (
        "Unexplained change",
        "Sign in and see: if it was not you, take the account back and change it.",
    ),
    FindingKind.NOTICE: ("Breach notice", "Change it: it is older than the breach."),
    FindingKind.LIKE_PASSPHRASE: ("Like the vault's passphrase", "Change it to a drawn one."),
    FindingKind.WEAK: ("Weak", "Change it to a drawn one, as long as the site takes."),
    FindingKind.REUSED: ("Reused", "Change it so that each login has its own."),
    FindingKind.SIMILAR: ("Similar", "Change it to one that is made of nothing else."),
    FindingKind.UNFINISHED: ("Unfinished", "Finish the change that was begun."),
    FindingKind.OFF_POLICY: ("Off policy", "Change it to what the site asks for, or would take."),
    FindingKind.NO_SECOND_FACTOR: ("No second factor", "Set one up at the site."),
    FindingKind.OVERDUE: ("Overdue", "Change it: its day is past."),
    FindingKind.PLAIN_HTTP: ("Plain http", "Use the https address, if the site has one."),
}


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
    kind, to_do = _KINDS[finding.kind]
    group = {
        GroupedBy.OWNER: card.owner or "Your own",
        GroupedBy.FOLDER: card.folder or "In no folder",
        GroupedBy.KIND: kind,
    }[grouped_by]
    evidence = finding.evidence
    if not with_user_names:
        for other in (cards[i] for i in finding.others if i in cards):
            if other.user_name:
                evidence = evidence.replace(f", {other.user_name}", "")
    user_name = card.user_name if with_user_names else ""
    return ReportLine(group, card.title, user_name, card.address, kind, evidence, to_do)
