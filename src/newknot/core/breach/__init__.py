"""Breach corpora: the layout of a corpus on a buffer, and the look-up of hashes in it."""

from newknot.core.breach.lookup import CorpusView, InMemory
from newknot.core.breach.six_bytes import CorpusInvalid, CorpusTitle, encode_corpus
from newknot.core.breach.times import times_text

__all__ = ["CorpusInvalid", "CorpusTitle", "CorpusView", "InMemory", "encode_corpus", "times_text"]
