"""Argon2id: a vector, normal forms, and bounds."""

import pytest

from newknot.crypto import INTERACTIVE, KdfParameters, KeyParametersRefused, derive_key

CHEAP = KdfParameters(passes=1, memory_kib=64, lanes=1)


def test_a_known_answer_of_the_reference_implementation() -> None:
    # phc-winner-argon2, test.c, Argon2id v=19, t=2, m=2^8 KiB, one lane, "password", "somesalt".
    parameters = KdfParameters(passes=2, memory_kib=256, lanes=1)
    key = derive_key("password", salt=b"somesalt", parameters=parameters)
    assert key.hex() == "9dfeb910e80bad0311fee20f9c0e2b12c17987b4cac90c2ef54d5b3021c68bfe"


def test_both_normal_forms_give_one_key() -> None:
    salt = bytes(16)
    composed = derive_key("caf\u00e9", salt=salt, parameters=CHEAP)
    assert derive_key("cafe\u0301", salt=salt, parameters=CHEAP) == composed


def test_the_least_memory_for_its_lanes_is_taken() -> None:
    assert KdfParameters(passes=1, memory_kib=64, lanes=8).lanes == 8


@pytest.mark.parametrize(
    "wrong",
    [
        {"passes": 0},
        {"passes": 17},
        {"memory_kib": 63},
        {"memory_kib": 2**21},
        {"lanes": 17},
        {"lanes": 16, "memory_kib": 64},
        {"version": 16},
    ],
)
def test_parameters_beyond_belief_are_refused_before_any_work(wrong: dict[str, int]) -> None:
    values = {"passes": 3, "memory_kib": 65536, "lanes": 4, **wrong}
    with pytest.raises(KeyParametersRefused):
        KdfParameters(**values)


def test_the_usual_profile_is_the_second_recommended_of_the_rfc() -> None:
    assert (INTERACTIVE.passes, INTERACTIVE.memory_kib, INTERACTIVE.lanes) == (3, 65536, 4)
