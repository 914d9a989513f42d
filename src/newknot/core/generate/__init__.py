"""Uniform draws over exactly counted sets: passwords to a policy, words, sentences, PINs."""

from newknot.core.generate.characters.password_space import PasswordSpace
from newknot.core.generate.conflicting_rules import conflicts
from newknot.core.generate.phrases.passphrase import Passphrase, PassphraseShape, PassphraseSpace
from newknot.core.generate.phrases.sentence import SentenceShape, SentenceSpace
from newknot.core.generate.random_source import RandomSource
from newknot.core.generate.relaxation import relaxation_offered

__all__ = [
    "Passphrase",
    "PassphraseShape",
    "PassphraseSpace",
    "PasswordSpace",
    "RandomSource",
    "SentenceShape",
    "SentenceSpace",
    "conflicts",
    "relaxation_offered",
]
