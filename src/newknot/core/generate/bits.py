"""log2 of a count, never rounded up."""

import math


def floor_log2(count: int) -> float:
    """log2(count) rounded down to two decimals; exact integer arithmetic decides the last one.

    count: at least 1. The result r satisfies 2^r <= count.
    """
    whole = count.bit_length() - 1
    hundredths = int(math.log2(count >> max(0, whole - 60)) * 100) + 100 * max(0, whole - 60)
    while _above(hundredths, count):
        hundredths -= 1
    while not _above(hundredths + 1, count):
        hundredths += 1
    return hundredths / 100


def _above(hundredths: int, count: int) -> bool:
    """Whether 2^(hundredths/100) > count, that is 2^hundredths > count^100."""
    return 1 << hundredths > count**100
