"""Addresses that are made to look like another's."""

from collections import Counter
from pathlib import Path

import pytest

from newknot.core.address import site_of, spelled
from newknot.core.address.likeness import forget_names, resembling
from tests.support.vectors import vectors

PAIRS = Path(__file__).parents[2] / "vectors" / "address_likeness.csv"
"""known domain, address, and how it resembles it; empty where it does not."""
KNOWN = ("fernbank.example", "tallowpost.co.uk", "lumen.example", "slate.example", "northlight.org")


def punycode(label: str) -> str:
    return "xn--" + label.encode("punycode").decode()


@pytest.mark.parametrize(("address", "domain", "how"), vectors("resembled_sites.tsv"))
def test_an_address_is_told_from_the_site_it_resembles(address: str, domain: str, how: str) -> None:
    site = site_of(address)
    assert site is not None
    said = resembling(site, KNOWN)
    assert [(one.domain, one.how.value) for one in said] == ([(domain, how)] if how else [])
    forget_names()


def test_the_table_of_addresses_is_told_as_it_says() -> None:
    rows = [line.split(",") for line in PAIRS.read_text("utf-8").splitlines()[1:]]
    told: Counter[tuple[str, str]] = Counter()
    wrong = []
    for known, address, how in rows:
        site = site_of(address)
        assert site is not None
        found = [one.how.value for one in resembling(site, [known])]
        told[how, found[0] if found else ""] += 1
        if found != ([how] if how else []):
            wrong.append(f"{address} of {known}: {found}, not {how or 'nothing'}")
    assert len(rows) > 300 and sum(n for (how, _), n in told.items() if how) > 150
    alarms = sum(n for (how, found), n in told.items() if found and not how)
    missed = sum(n for (how, found), n in told.items() if how and not found)
    assert (alarms, missed) == (0, 1), wrong
    forget_names()


def test_a_host_is_spelled_in_its_own_letters_where_it_can_be() -> None:
    assert spelled(f"www.{punycode('bücher')}.example") == "www.bücher.example"
    assert spelled("xn--\u00ff.example") == "xn--\u00ff.example"
