"""Which site an address belongs to."""

import pytest

from newknot.core.address import site_of
from newknot.core.errors import FieldInvalid


@pytest.mark.parametrize(
    ("address", "domain"),
    [
        ("https://www.gantry.example/login", "gantry.example"),
        ("gantry.example", "gantry.example"),
        ("http://a.b.gantry.co.uk:8080", "gantry.co.uk"),
        ("http://gantryrentals.localhost:47807/", "gantryrentals.localhost"),
        ("http://192.168.7.1", "192.168.7.1"),
        ("http://[::1]:80/", "::1"),
        ("  https://GANTRY.example.  ", "gantry.example"),
    ],
)
def test_the_registrable_domain_is_found(address: str, domain: str) -> None:
    site = site_of(address)
    assert site is not None
    assert site.domain == domain


def test_loopback_is_known_and_nothing_is_no_site() -> None:
    assert site_of("   ") is None
    loops = [site_of(a) for a in ("http://x.localhost", "http://127.0.0.1:1", "http://[::1]")]
    assert all(site is not None and site.is_loopback for site in loops)


@pytest.mark.parametrize(
    "address",
    [
        "ftp://gantry.example",
        "javascript:alert(1)",
        "https://",
        "http://a b",
        "http://u:p@x.example",
        "http://[::1",
        "http://x:99999/",
    ],
)
def test_what_is_no_web_address_is_refused(address: str) -> None:
    with pytest.raises(FieldInvalid):
        site_of(address)
