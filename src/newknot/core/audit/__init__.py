"""The check: findings with their evidence, computed from the logins alone."""

from newknot.core.audit.audit import AuditedLogin, AuditedRotation, AuditStopped, audit
from newknot.core.audit.finding import Finding, FindingKind

__all__ = [
    "AuditStopped",
    "AuditedLogin",
    "AuditedRotation",
    "Finding",
    "FindingKind",
    "audit",
]
