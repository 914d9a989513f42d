"""The site policies of the demo world, in the JSON form."""

from typing import Any

from newknot.core.policy.character_classes import DIGITS, LOWER, UPPER

POLICIES: tuple[tuple[str, tuple[str, ...], dict[str, Any]], ...] = (
    (
        "Gantry Rentals",
        ("gantryrentals.localhost",),
        {
            "min_length": 8,
            "max_length": 24,
            "classes": [
                {"name": "lower", "characters": LOWER},
                {"name": "upper", "characters": UPPER, "minimum": 1},
                {"name": "digit", "characters": DIGITS, "minimum": 2},
                {"name": "symbol", "characters": "-_.@", "minimum": 1},
            ],
        },
    ),
    (
        "Lumen Society",
        ("lumensociety.localhost",),
        {
            "min_length": 8,
            "max_length": 16,
            "classes": [
                {"name": "lower", "characters": LOWER},
                {"name": "upper", "characters": UPPER},
                {"name": "digit", "characters": DIGITS},
            ],
        },
    ),
    (
        "Papertape Licensing",
        ("papertape.localhost",),
        {
            "min_length": 6,
            "max_length": 40,
            "classes": [
                {"name": "lower", "characters": LOWER},
                {"name": "upper", "characters": UPPER},
                {"name": "digit", "characters": DIGITS},
                {"name": "symbol", "characters": "!#$%&*+-./:;=?@_"},
            ],
        },
    ),
    (
        "Slate Payroll",
        ("slatepayroll.example",),
        {
            "min_length": 10,
            "max_length": 20,
            "classes": [
                {"name": "lower", "characters": LOWER},
                {"name": "upper", "characters": UPPER},
                {"name": "digit", "characters": DIGITS},
                {"name": "symbol", "characters": "!?#+-"},
            ],
            "min_classes": 3,
            "forbidden": ["slate", "quist"],
            "max_age_days": 90,
        },
    ),
    (
        "Northlight Playhouse",
        ("northlight.example",),
        {
            "min_length": 12,
            "max_length": 64,
            "classes": [
                {"name": "lower", "characters": LOWER, "minimum": 1},
                {"name": "upper", "characters": UPPER, "minimum": 1},
                {"name": "digit", "characters": DIGITS, "minimum": 1},
                {"name": "symbol", "characters": "!#$%&*+-./:;=?@_", "minimum": 1},
            ],
            "excluded": "0OIl1",
            "max_identical_run": 2,
            "max_age_days": 365,
        },
    ),
    (
        "Tithe Office",
        ("titheoffice.example",),
        {
            "min_length": 8,
            "max_length": 16,
            "classes": [
                {"name": "letter", "characters": LOWER, "minimum": 1},
                {"name": "digit", "characters": DIGITS, "minimum": 2, "maximum": 4},
            ],
            "first_from": LOWER,
            "max_sequence_run": 3,
        },
    ),
)

LEARNED = {
    "Papertape Licensing": "form",
    "Northlight Playhouse": "form",
    "Lumen Society": "refusal",
}
"""How a policy came to be known, where it was not typed."""
OFFER_SECOND_FACTOR = ("Northlight Playhouse", "Slate Payroll", "Papertape Licensing")
"""Policies of sites that are known to offer a second factor."""
