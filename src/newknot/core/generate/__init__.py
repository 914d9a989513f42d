"""Uniform draws over exactly counted sets: passwords to a policy, passphrases from a word list."""

from newknot.core.generate.passphrase import Passphrase, PassphraseShape, draw_passphrase
from newknot.core.generate.password_space import PasswordSpace
from newknot.core.generate.random_source import RandomSource

__all__ = ["Passphrase", "PassphraseShape", "PasswordSpace", "RandomSource", "draw_passphrase"]
