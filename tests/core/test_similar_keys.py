"""Secrets that are made of one another are told, and independent ones are not: a table of both."""

import csv
from pathlib import Path

from newknot.core.audit.similar_keys import SAYS, Alike, SiteNames, keys_of, site_names

PAIRS = Path(__file__).parents[1] / "vectors" / "similar_secrets.csv"
"""site, secret, other site, other secret, and how they are alike; empty where they are not."""


def names(title: str) -> list[SiteNames]:
    label = "".join(title.lower().split()[:2])
    return [site_names(title=title, address=f"https://{label}.example")]


def kinds(site: str, secret: str, other_site: str, other: str) -> set[Alike]:
    one = set(keys_of(secret, names(site), drawn=False))
    shared = one.intersection(keys_of(other, names(other_site), drawn=False))
    return {Alike(key.partition(" ")[0]) for key in shared}


def test_the_table_of_pairs_is_told_as_it_says() -> None:
    with PAIRS.open(encoding="utf-8", newline="") as file:
        rows = [tuple(row) for row in csv.reader(file)][1:]
    alike = [row for row in rows if row[4]]
    assert len(alike) >= 150 and len(rows) - len(alike) >= 150
    missed = [row for row in alike if not kinds(*row[:4])]
    alarms = [row for row in rows if not row[4] and kinds(*row[:4])]
    assert missed == [] and alarms == []


def test_of_drawn_secrets_only_what_chance_does_not_share_counts() -> None:
    found = keys_of("Lantern19-abbey", names("Old Abbey"), drawn=True)
    assert {key.partition(" ")[0] for key in found} == {Alike.SHAPE, Alike.EDIT}
    for words, drawn in (("gantry-copper-ledger", False), ("gantry-copper-ledger-abbey", True)):
        assert f"{Alike.WORDS} copper ledger" not in keys_of(words, (), drawn=True)
        assert any(key.startswith(Alike.WORDS) for key in keys_of(words, (), drawn=drawn))
    # How many words are the same is counted where it is said.
    assert set(SAYS) == set(Alike) - {Alike.WORDS}


def test_a_long_text_has_bounded_keys() -> None:
    assert len(keys_of("lantern " * 1000, names("Old Abbey"), drawn=False)) < 400
