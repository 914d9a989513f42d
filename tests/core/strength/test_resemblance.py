"""Which secrets are like each other: changed by a word, a number, a suffix, a letter."""

import pytest

from newknot.core.strength.resemblance import forms


@pytest.mark.parametrize(
    ("former", "later"),
    [
        ("Lisbon47!", "lisbon48?"),
        ("Lisbon47!", "L1sbon"),
        ("xK7!pq2Z", "xK7!pq2Y"),
        ("velvet orchard lantern drum", "velvet orchard copper drum"),
        ("velvet orchard lantern drum", "velvet-orchard-lantern-drum-2"),
        ("velvet orchard lantern drum", "mitten velvet orchard lantern oven"),
        ("velvetorchardlanterndrum", "velvetorchardkettledrum"),
        ("velvet orchard lantern drum", "Velvet Lantern Drum"),
    ],
)
def test_a_changed_secret_resembles_its_former(former: str, later: str) -> None:
    assert forms(former) & forms(later)


@pytest.mark.parametrize(
    ("one", "other"),
    [
        ("velvet orchard lantern drum", "drum kettle orchard mitten"),
        ("kettle7", "mitten7"),
        ("Vq7x!Kz2mW#9", "pL4#tZ8&rN2!"),
        ("1234", "1299"),
        ("", ""),
    ],
)
def test_others_do_not(one: str, other: str) -> None:
    assert not forms(one) & forms(other)
