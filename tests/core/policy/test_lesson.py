"""What a refusal teaches."""

import pytest

from newknot.core.errors import FieldInvalid
from newknot.core.policy import STANDARD_CLASSES, Lesson, LessonKind, SitePolicy, taught
from tests.support.vectors import examples

K = LessonKind
WIDE = SitePolicy.from_dict(
    {
        "min_length": 8,
        "max_length": 40,
        "classes": [
            {"name": n, "characters": c, "minimum": 1} for n, c in STANDARD_CLASSES.items()
        ],
        "min_classes": 4,
        "max_identical_run": 2,
    }
)


@pytest.mark.parametrize(("kind", "length", "text", "takes", "refuses"), examples("lessons.json"))
def test_the_policy_takes_and_refuses_as_the_site_says(
    kind: str, length: int | None, text: str, takes: str, refuses: str
) -> None:
    policy = taught(WIDE, Lesson(LessonKind(kind), length, text))
    assert not policy.violations(takes) and policy.violations(refuses)
    assert policy.max_identical_run == 2


def test_too_like_the_last_deepens_the_history() -> None:
    once = taught(WIDE, Lesson(K.TOO_LIKE_THE_LAST))
    assert taught(once, Lesson(K.TOO_LIKE_THE_LAST)).history_depth == 2


@pytest.mark.parametrize(
    "lesson",
    [
        *(Lesson(K.TOO_LONG), Lesson(K.TOO_SHORT, 0), Lesson(K.THESE_CHARACTERS)),
        *(Lesson(K.ITS_WORDS, text=text) for text in ("", "Sorry, no.", "Try again later")),
    ],
)
def test_what_says_nothing_is_refused_by_its_field(lesson: Lesson) -> None:
    with pytest.raises(FieldInvalid):
        taught(WIDE, lesson)


def test_a_refusal_that_names_a_number_teaches_how_many_it_remembers() -> None:
    words = "Your new password must not be one of your last 6 passwords."
    assert taught(WIDE, Lesson(K.ITS_WORDS, text=words)).history_depth == 6
