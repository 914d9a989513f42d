"""Digests of the words that are tried first, whole or their beginning, as people take them for a
secret that looks like chance.
"""

import hashlib
import re
from collections.abc import Iterator
from functools import cache
from itertools import product
from math import log10

import numpy as np
from numpy.typing import NDArray

from newknot.core.shipped import shipped_lines
from newknot.core.strength.reading import Reading
from newknot.core.strength.segments import Found, Part, SegmentKind

DIGESTS_SHARE = 0.002
"""Of patterns."""
_ALGORITHMS = (("MD5", hashlib.md5), ("SHA-1", hashlib.sha1), ("SHA-256", hashlib.sha256))
_LISTS = ("common_passwords.txt.gz", "english_words.txt.gz", "given_names.txt.gz")
_OF_EACH_LIST = 10_000
_KEY, _CUT = 7, np.uint32(4)
"""Hexadecimal digits by which one is looked up, and bits of eight that are left out. By chance one
text in three thousand has these of a word's, and is then held against the whole digest.
"""
_LENGTHS_LOG10 = 1.0
"""Of cutting it off somewhere."""
_RUN = re.compile(rf"(?<![0-9a-z])(?=[0-9]*[a-f])(?=[a-f]*[0-9])[0-9a-f]{{{_KEY},64}}(?![0-9a-z])")


def digests(reading: Reading) -> Iterator[Found]:
    """Runs of hexadecimal digits, in one case, with which the digest of a common password, an
    English word or a given name begins.
    """
    for run in _RUN.finditer(reading.low):
        typed = reading.text[run.start() : run.end()]
        if typed not in (run.group(), run.group().upper()):
            continue
        keys, places = _table()
        at = int(np.searchsorted(keys, int(run.group()[:_KEY], 16)))
        while at < len(keys) and keys[at] == int(run.group()[:_KEY], 16):
            place, algorithm = divmod(int(places[at]), len(_ALGORITHMS))
            word, (name, of) = _words()[place], _ALGORITHMS[algorithm]
            digest = of(word.encode(), usedforsecurity=False).hexdigest()
            if digest.startswith(run.group()):
                which = log10(len(_LISTS) * (place % _OF_EACH_LIST) + 10) + log10(len(_ALGORITHMS))
                fee = -log10(DIGESTS_SHARE) + (_LENGTHS_LOG10 if run.group() != digest else 0.0)
                # It is said in lists too, where the word would be the secret.
                says, kind = f"{name} digest of a word", SegmentKind.DISGUISED
                yield Found(*run.span(), Part.PATTERN, which, fee, kind, says)
            at += 1


@cache
def _words() -> tuple[str, ...]:
    lists = map(shipped_lines, _LISTS)
    return (*(word for words in lists for word in words[:_OF_EACH_LIST]), "")


@cache
def _table() -> tuple[NDArray[np.uint32], NDArray[np.uint32]]:
    """The first digits of every digest, in order, and whose it is: the word's place times how many
    algorithms there are, and the algorithm's. Made when the first such text is met.
    """
    each = product((word.encode() for word in _words()), (of for _, of in _ALGORITHMS))
    first = b"".join(of(word, usedforsecurity=False).digest()[:4] for word, of in each)
    keys = np.right_shift(np.frombuffer(first, dtype=">u4").astype(np.uint32), _CUT)
    order = np.argsort(keys, kind="stable")
    return keys[order], order.astype(np.uint32)
