"""Campaigns as sealed records."""

from contextlib import suppress
from datetime import datetime

from newknot.core.rotation.campaign import Campaign
from newknot.store.errors import RecordDamaged
from newknot.store.manifest import Label
from newknot.store.record_json import iso, packed, unpacked
from newknot.store.vault import Transaction, Vault


def put_campaign(tx: Transaction, campaign: Campaign) -> None:
    """Writes a campaign."""
    document = {"begun_at": iso(campaign.begun_at), "login_ids": list(campaign.login_ids)}
    tx.put(Label.CAMPAIGN, campaign.campaign_id, packed(document))


def get_campaign(vault: Vault, campaign_id: str) -> Campaign:
    """One campaign. Raises `RecordMissing`, `RecordDamaged`."""
    d = unpacked(vault.get(Label.CAMPAIGN, campaign_id))
    return Campaign(campaign_id, datetime.fromisoformat(d["begun_at"]), tuple(d["login_ids"]))


def list_campaigns(vault: Vault) -> list[Campaign]:
    """All readable campaigns, newest first."""
    found: list[Campaign] = []
    for campaign_id in vault.ids(Label.CAMPAIGN):
        with suppress(RecordDamaged):
            found.append(get_campaign(vault, campaign_id))
    return sorted(found, key=lambda one: (one.begun_at, one.campaign_id), reverse=True)


def remove_campaign(tx: Transaction, campaign_id: str) -> None:
    """Deletes a campaign; logins and rotations stay. Raises `RecordMissing`."""
    tx.remove(Label.CAMPAIGN, campaign_id)
