"""Which of two is better, and why."""

from newknot.core.strength import compared, measure


def test_the_reasons_name_the_attacks_and_what_each_is_made_of() -> None:
    found = compared(measure("Lisbon4719!Lisbon4719!"), measure("kq8Wz!pL2m"))
    assert found.better == "second"
    assert found.orders > 10
    assert found.reasons[0] == "The first falls to “stolen, slow”, the second only to “a state”."
    assert "place name (1 in 3,200)" in found.reasons[1]
    assert "10 unpatterned characters" in found.reasons[2]
    assert found.reasons[3] == "Length does not decide: the second is the shorter."


def test_four_words_beat_an_imposed_mixture_though_they_have_one_kind_of_character() -> None:
    imposed, words = measure("Gantry7!"), measure("velvetorchardlanterndrum")
    found = compared(words, imposed)
    assert found.better == "first"
    assert "4 × word of a list" in found.reasons[1]
    assert found.reasons[-1].startswith("Symbols and digits do not decide")


def test_alike_secrets_are_called_alike() -> None:
    assert compared(measure("xkqvjzwp"), measure("wmqzjtbk")).better == "neither"
    beyond = compared(measure("Vq7x!Kz2mW#9pLr4"), measure("Vq7x!Kz2mW#9pLr4tH&2"))
    assert beyond.reasons[0] == "Both stand every attack on the ruler; the second later."
