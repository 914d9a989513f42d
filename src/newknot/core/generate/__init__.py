"""Uniform draws over exactly counted sets: passwords to a policy, words, sentences, PINs."""

from newknot.core.generate.passphrase import Passphrase, PassphraseShape, PassphraseSpace
from newknot.core.generate.password_space import PasswordSpace
from newknot.core.generate.random_source import RandomSource
from newknot.core.generate.sentence import SentenceShape, SentenceSpace

__all__ = [
    "Passphrase",
    "PassphraseShape",
    "PassphraseSpace",
    "PasswordSpace",
    "RandomSource",
    "SentenceShape",
    "SentenceSpace",
]
