"""What a site takes as a password: `SitePolicy`, what breaks it, and what contradicts itself."""

from newknot.core.policy.character_classes import LOOK_ALIKES, STANDARD_CLASSES
from newknot.core.policy.contradiction import Conflict
from newknot.core.policy.lesson import Lesson, LessonKind, taught
from newknot.core.policy.named_policy import NamedPolicy
from newknot.core.policy.site_policy import CharacterClass, SitePolicy
from newknot.core.policy.violations import Violation

__all__ = [
    "LOOK_ALIKES",
    "STANDARD_CLASSES",
    "CharacterClass",
    "Conflict",
    "Lesson",
    "LessonKind",
    "NamedPolicy",
    "SitePolicy",
    "Violation",
    "taught",
]
