"""Which site an address belongs to."""

import json
from pathlib import Path

import pytest

from newknot.core.address import address_from, kept_address, same_address, site_of
from newknot.core.errors import FieldInvalid
from tests.support.vectors import examples, vectors

VECTORS = Path(__file__).parents[2] / "vectors"


@pytest.mark.parametrize(("address", "domain"), examples("registrable_domains.json"))
def test_the_registrable_domain_is_found(address: str, domain: str) -> None:
    site = site_of(address)
    assert site is not None
    assert site.domain == domain


def test_loopback_is_known_and_nothing_is_no_site() -> None:
    assert site_of("   ") is None
    loops = [site_of(a) for a in ("http://x.localhost", "http://127.0.0.1:1", "http://[::1]")]
    assert all(site is not None and site.is_loopback for site in loops)
    assert not any(
        s.is_loopback for a in ("notlocalhost", "localhost.example") if (s := site_of(a))
    )


@pytest.mark.parametrize("address", examples("no_addresses.json"))
def test_what_is_no_web_address_is_refused(address: str) -> None:
    with pytest.raises(FieldInvalid):
        site_of(address)


@pytest.mark.parametrize(
    ("address", "origin"),
    # What a browser makes of it (the URL standard, sections 4.4 and 3.5).
    json.loads((VECTORS / "what_a_browser_opens.json").read_text("utf-8")),
)
def test_an_address_is_what_a_browser_opens(address: str, origin: str | None) -> None:
    if origin is None:
        with pytest.raises(FieldInvalid):
            site_of(address)
        return
    site = site_of(address)
    assert site is not None and site.origin == origin
    # What is stored is read the same, by whatever reads it.
    assert site_of(kept_address(address)) == site
    plain = site_of(site.address)
    assert plain == site


@pytest.mark.parametrize(("typed", "kept"), vectors("kept_addresses.tsv"))
def test_what_is_stored_is_what_was_typed_or_what_it_opens(typed: str, kept: str) -> None:
    assert kept_address(typed) == kept


def test_one_address_in_two_writings_is_the_same() -> None:
    for one, other in (
        ("https://bücher.example/", "xn--bcher-kva.example"),
        ("gantry.example", "https://GANTRY.example:443"),
        ("https://gantry.example/a/./b/", "https://gantry.example/a/b"),
    ):
        assert same_address(one, other)
    assert not same_address("http://gantry.example", "https://gantry.example")
    assert not same_address(r"https://evil.example\.gantry.example", "https://gantry.example")


def test_a_reference_in_a_page_leads_where_a_browser_goes() -> None:
    base = "https://gantry.example/a/b"
    assert address_from(base, r"\\evil.example/x") == "https://evil.example/x"
    assert address_from(base, "?y") == "https://gantry.example/a/b?y"
    for broken in ("https://[::1", "//a b/", "http://x:99999"):
        with pytest.raises(FieldInvalid):
            address_from(base, broken)
