"""The order of a campaign."""

from newknot.core.audit.mailboxes import Reset
from newknot.core.rotation.campaign import order_of_work


def test_mailboxes_that_reset_others_of_the_campaign_come_first_and_the_rest_as_given() -> None:
    resets = [
        Reset("post", "bank", is_guess=False),
        Reset("work", "bank", is_guess=True),
        Reset("work", "shop", is_guess=True),
        Reset("far", "elsewhere", is_guess=True),
        Reset("far", "else", is_guess=True),
    ]
    chosen = ["shop", "bank", "far", "post", "shop", "work"]
    assert order_of_work(chosen, resets) == ("work", "post", "shop", "bank", "far")
