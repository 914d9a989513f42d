"""Addresses of sites: what counts as one site, and what may be opened."""

from newknot.core.address.site import (
    Site,
    address_from,
    domain_of,
    forget_addresses,
    host_of,
    kept_address,
    same_address,
    site_of,
    spelled,
    warm_suffixes,
)

__all__ = [
    "Site",
    "address_from",
    "domain_of",
    "forget_addresses",
    "host_of",
    "kept_address",
    "same_address",
    "site_of",
    "spelled",
    "warm_suffixes",
]
