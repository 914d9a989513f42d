"""Which policy holds at an address, however the address is spelled."""

from itertools import product

from newknot.core.address import site_of
from newknot.core.errors import FieldInvalid
from newknot.core.policy import NamedPolicy
from newknot.usecases.policies import NamedPolicies, default_policy
from tests.store.samples import AT

DOMAINS = "slate.example", "127.0.0.1", "xn--bhne-5qa.example", "gel.co.example"
SCHEMES = "https://", "HTTP://", "", " http://", "https:/", "https://u@", "https://slate.example:1@"
HOSTS = ["slate.example", "www.Slate.example", "slate.example.", "other.example", "aslate.example"]
HOSTS += ["127.0.0.1", "0x7f.1", "127.1", "bühne.example", "B%C3%BChne.example", "ｓlate.example"]
HOSTS += ["xn--bhne-5qa.example", "slate.example\\x", "sl\tate.example", "example", "[::1]", ""]
ENDS = "", "/", ":8443", "/a?b=other.example", "?slate.example", "#x", "\n", "@slate.example", "/\\"


def test_the_policy_is_that_of_the_site_whatever_the_spelling() -> None:
    rest = default_policy(), "typed", AT
    every = {one: NamedPolicy(one, one, (one,), *rest) for one in DOMAINS}
    library = NamedPolicies(list(every.values()))
    met = set()
    for address in map("".join, product(SCHEMES, HOSTS, ENDS)):
        try:
            site = site_of(address)
        except FieldInvalid:
            site = None
        found = library.of(address)
        assert found == (every.get(site.domain) if site is not None else None), address
        met.add(found.policy_id if found is not None else "")
    assert met == {"", *DOMAINS[:3]}
