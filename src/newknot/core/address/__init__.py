"""Addresses of sites: what counts as one site, and what may be opened."""

from newknot.core.address.site import Site, domain_of, forget_addresses, host_of, site_of

__all__ = ["Site", "domain_of", "forget_addresses", "host_of", "site_of"]
