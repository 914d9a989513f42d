"""The site that an address belongs to: what a browser would open, and its registrable domain.

Addresses are read by the URL standard (WHATWG, by `ada-url`), as browsers read them: with its
backslashes, tabs, percent-encoded and numeric hosts; domains by the Public Suffix List.
"""

import re
from dataclasses import dataclass
from functools import cache, lru_cache
from ipaddress import IPv4Address, IPv6Address, ip_address
from urllib.parse import unquote

from ada_url import join_url, parse_url
from publicsuffixlist import PublicSuffixList

from newknot.core.errors import FieldInvalid

_PORTS = {"https": 443, "http": 80}
_DROPPED = re.compile(r"[\t\n\r]")
_ENDS = "".join(map(chr, range(0x21)))
"""What the standard takes off both ends."""
_WITH_SCHEME = re.compile(r"https?:|[a-z][a-z0-9+.-]*:[/\\]{2}", re.IGNORECASE)
_TYPED = re.compile(r"(?:https?://)?([^/?#\\@\s]*)([^\\\s]*)", re.IGNORECASE)
_READ = ("href",)
"""All else stands in the form that the standard gives an address, and is cut out of that."""
_NORMAL = re.compile(r"(https?)://([^/@]*@)?(\[[^\]/]*\]|[^/:]*)(?::([0-9]+))?/")
_NO_ADDRESS = "is not a web address (http or https)"


@dataclass(frozen=True, slots=True)
class Site:
    """scheme, host (in ASCII, without a last dot), and the registrable domain or the host itself.

    port: with the scheme's own where none is said. address: what a browser opens, in its own
    writing. origin: scheme://host, with the port where it is not the scheme's own (RFC 6454).
    """

    scheme: str
    host: str
    domain: str
    is_loopback: bool
    port: int
    address: str
    origin: str


@cache
def _suffixes() -> PublicSuffixList:
    return PublicSuffixList()


def warm_suffixes() -> None:
    """Reads the list of public suffixes ahead of the first address."""
    _suffixes()


@lru_cache(maxsize=60_000)
def site_of(address: str) -> Site | None:
    """The site of an address, typed with or without its scheme; None for an empty one.

    Raises `FieldInvalid` where no browser would open it, or the text is no http or https address.
    Addresses asked before are kept in memory until `forget_addresses`.
    """
    text = _DROPPED.sub("", address.strip().strip(_ENDS))
    if not text:
        return None
    if not _WITH_SCHEME.match(text):
        text = "https://" + text
    try:
        href = parse_url(text, _READ)["href"]
    except ValueError:
        raise FieldInvalid("address", "is not a web address") from None
    parts = _NORMAL.match(href)
    if parts is None:
        raise FieldInvalid("address", _NO_ADDRESS)
    scheme, names_user, host, given_port = parts.groups()
    host = host.removesuffix(".").removeprefix("[").removesuffix("]")
    if not all(host.split(".")):
        raise FieldInvalid("address", _NO_ADDRESS)
    if names_user:
        raise FieldInvalid("address", "holds a user name or password: leave them out")
    port = int(given_port or _PORTS[scheme])
    shown = f"[{host}]" if ":" in host else host
    origin = f"{scheme}://{shown}" + (f":{port}" if port != _PORTS[scheme] else "")
    return Site(scheme, host, _domain(host), _is_loopback(host), port, href, origin)


def kept_address(address: str) -> str:
    """An address as it is to be stored: as it was typed where a browser opens just that, else what
    it opens instead. Raises `FieldInvalid` as `site_of` does.
    """
    text, site = address.strip(), site_of(address)
    if site is None:
        return ""
    typed = _TYPED.fullmatch(text)
    if typed is not None:
        host, _, port = typed[1].lower().partition(":")
        rest = site.address[site.address.index("/", 8) :]
        same_host = host.removesuffix(".") in (site.host, spelled(site.host))
        same_port = port in ("", str(site.port)) and (port or site.port == _PORTS[site.scheme])
        if same_host and same_port and unquote(typed[2] or "/") == unquote(rest):
            return text
    return site.address


def address_from(base: str, reference: str) -> str:
    """Where a reference within a page leads. Raises `FieldInvalid` where it leads nowhere."""
    try:
        return str(join_url(base, reference))
    except ValueError:
        raise FieldInvalid("address", _NO_ADDRESS) from None


def same_address(one: str, other: str) -> bool:
    """Whether a browser opens the same by both; a last slash is no difference."""
    here, there = _site_or_none(one), _site_or_none(other)
    if here is None or there is None:
        return one.strip() == other.strip()
    return here.address.rstrip("/") == there.address.rstrip("/")


def spelled(host: str) -> str:
    """A host as it is read: its xn-- labels (RFC 3492) in their own letters where they can be."""
    return ".".join(_read_label(label) for label in host.split("."))


def _read_label(label: str) -> str:
    if not label.startswith("xn--"):
        return label
    try:
        return label[4:].encode("ascii").decode("punycode")
    except UnicodeError:
        return label


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
