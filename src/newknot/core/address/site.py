"""The site that an address belongs to: its registrable domain (Public Suffix List)."""

from dataclasses import dataclass
from functools import cache, lru_cache
from ipaddress import IPv4Address, IPv6Address, ip_address
from urllib.parse import urlsplit

from publicsuffixlist import PublicSuffixList

from newknot.core.errors import FieldInvalid


@dataclass(frozen=True, slots=True)
class Site:
    """scheme, host (lower case, IDNA as given), and the registrable domain or the host itself."""

    scheme: str
    host: str
    domain: str
    is_loopback: bool


@cache
def _suffixes() -> PublicSuffixList:
    return PublicSuffixList()


@lru_cache(maxsize=20_000)
def site_of(address: str) -> Site | None:
    """The site of an address, typed with or without its scheme; None for an empty one.

    Raises `FieldInvalid` where the text is no http or https address. Addresses asked before are
    kept in memory until `forget_addresses`.
    """
    text = address.strip()
    if not text:
        return None
    if "://" not in text:
        text = "https://" + text
    try:
        parts = urlsplit(text)
        host = (parts.hostname or "").rstrip(".")
        _ = parts.port
    except ValueError:
        raise FieldInvalid("address", "is not a web address") from None
    if parts.scheme not in ("http", "https") or not host or any(c.isspace() for c in host):
        raise FieldInvalid("address", "is not a web address (http or https)")
    if parts.username is not None or parts.password is not None:
        raise FieldInvalid("address", "holds a user name or password: leave them out")
    return Site(parts.scheme, host, _domain(host), _is_loopback(host))


def _domain(host: str) -> str:
    if _as_ip(host) is not None:
        return host
    if host == "localhost" or host.endswith(".localhost"):
        return host
    return _suffixes().privatesuffix(host) or host


def _is_loopback(host: str) -> bool:
    if host == "localhost" or host.endswith(".localhost"):
        return True
    address = _as_ip(host)
    return address is not None and address.is_loopback


def _as_ip(host: str) -> IPv4Address | IPv6Address | None:
    if not host[-1].isdigit() and ":" not in host:
        return None
    try:
        return ip_address(host)
    except ValueError:
        return None


def suffix_of(domain: str) -> str:
    """The public suffix of a domain; the whole where it is one, or is no name."""
    if _as_ip(domain) is not None:
        return domain
    return str(_suffixes().publicsuffix(domain) or domain)


def forget_addresses() -> None:
    """Lets go of all addresses asked before."""
    site_of.cache_clear()


def domain_of(address: str) -> str:
    """The registrable domain of an address as stored; nothing where it names no site."""
    site = _site_or_none(address)
    return site.domain if site is not None else ""


def host_of(address: str) -> str:
    """The host of an address as stored; nothing where it names no site."""
    site = _site_or_none(address)
    return site.host if site is not None else ""


def _site_or_none(address: str) -> Site | None:
    try:
        return site_of(address)
    except FieldInvalid:
        return None
