"""What a refusal teaches."""

import pytest

from newknot.core.errors import FieldInvalid
from newknot.core.policy import STANDARD_CLASSES, Lesson, LessonKind, SitePolicy, taught

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


@pytest.mark.parametrize(
    ("lesson", "takes", "refuses"),
    [
        (Lesson(K.TOO_LONG, 12), "aB3-aB3-aB3-", "aB3-aB3-aB3-x"),
        (Lesson(K.TOO_LONG, 6), "aB3-xY", "aB3-xYz"),
        (Lesson(K.TOO_SHORT, 50), "aB3-" * 12 + "aB", "aB3-" * 5),
        (Lesson(K.THESE_CHARACTERS, text="-&"), "aB3_xY7.", "aB3-xY7."),
        (Lesson(K.NO_SYMBOLS), "aB3xY7zq", "aB3-xY7z"),
        (
            Lesson(K.ITS_WORDS, text="Your password must have 8 to 16 characters."),
            "aB3-xY7z",
            "aB3-" * 5,
        ),
        (
            Lesson(K.ITS_WORDS, text="Your password may hold only letters and digits."),
            "aB3xY7zq",
            "aB3-xY7z",
        ),
        (
            Lesson(K.ITS_WORDS, text="No symbols, at most 10 characters"),
            "aB3xY7zq",
            "aB3xY7zqaB3",
        ),
    ],
)
def test_the_policy_takes_and_refuses_as_the_site_says(
    lesson: Lesson, takes: str, refuses: str
) -> None:
    policy = taught(WIDE, lesson)
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
