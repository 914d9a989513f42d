"""Addresses that are made to look like another's."""

import pytest

from newknot.core.address import site_of, spelled
from newknot.core.address.likeness import forget_names, resembling

KNOWN = ("fernbank.example", "tallowpost.co.uk", "lumen.example", "slate.example", "northlight.org")


def punycode(label: str) -> str:
    return "xn--" + label.encode("punycode").decode()


@pytest.mark.parametrize(
    ("address", "found"),
    [
        ("https://fernbank.example/x", None),
        ("https://www.fernbank.example", None),
        (f"https://{punycode('fernbаnk')}.example", ("fernbank.example", "other_alphabet")),
        (f"https://{punycode('fernbänk')}.example", ("fernbank.example", "other_alphabet")),
        (f"https://www.{punycode('ѕlаtе')}.example", ("slate.example", "other_alphabet")),
        ("https://fembank.example", ("fernbank.example", "look_alike")),
        ("https://Iumen.example", ("lumen.example", "look_alike")),
        ("https://1umen.example", ("lumen.example", "look_alike")),
        ("https://fernbanc.example", ("fernbank.example", "one_letter")),
        ("https://fernbak.example", ("fernbank.example", "one_letter")),
        ("https://fenrbank.example", ("fernbank.example", "one_letter")),
        ("https://tallowpost.com", ("tallowpost.co.uk", "other_ending")),
        ("https://northlight.org.uk", ("northlight.org", "other_ending")),
        ("https://fernbank.example.takings.test", ("fernbank.example", "name_inside")),
        ("https://fernbank-sign-in.test", ("fernbank.example", "name_inside")),
        ("https://sandbank.example", None),
        ("https://fernbanks-of.example", None),
        ("http://fernbank.localhost:80", None),
        ("http://10.0.0.7", None),
    ],
)
def test_an_address_is_told_from_the_site_it_resembles(
    address: str, found: tuple[str, str] | None
) -> None:
    site = site_of(address)
    assert site is not None
    said = resembling(site, KNOWN)
    assert [(one.domain, one.how.value) for one in said] == ([found] if found else [])
    forget_names()


def test_a_host_is_spelled_in_its_own_letters_where_it_can_be() -> None:
    assert spelled(f"www.{punycode('bücher')}.example") == "www.bücher.example"
    assert spelled("xn--\u00ff.example") == "xn--\u00ff.example"
