"""Addresses of sites: what counts as one site, and what may be opened."""

from newknot.core.address.site import Site, site_of

__all__ = ["Site", "site_of"]
