"""What a text of parts loses because people put parts together by a scheme.

The chain takes each part as chosen for itself. Where a secret is put together from parts, or is an
idiom or shape that people know, the parts hang together, and who knows the scheme tries far fewer.
How many fewer was found by least squares over secrets of some 300 ways of making that were written
down before the finders knew them, and then by what it did to ways that were never fitted.
"""

from newknot.core.strength.segments import Segment, SegmentKind

PARTS_FREE, FURTHER_MOST = 3, 5
EACH_FURTHER_LOG10, KNOWN_LOG10, VIEWED_LOG10, BY_CHANCE_SHARE = 1.3, 1.6, 1.2, 0.24
"""Of each part beyond the third, five of them at most; of a text with a known form in it, or
changed as a whole; and of what the characters cost that nothing explains, beside others.
"""
COPY_LOG10, EACH_SMALL_LOG10, SMALL_BELOW_LOG10, SMALL_MOST = 1.2, 0.5, 1.9, 4
"""Of a part that is repeated and no chance; of words as usual as *of* or *to*, so many at most."""
ABROAD_LOG10, ABROAD_MOST = 0.5, 4
"""Of each further word of other languages: they are mostly of the same one, and tried together."""
TOGETHER_LOG10, EACH_WORD_LOG10, WORDS_MOST = 0.6, 0.6, 3
"""Of any parts put together: one of them is mostly of a smaller choice than its whole list; and of
each word beside the first.
"""
NONE_BELOW_LOG10, ALL_ABOVE_LOG10, SHARE_MOST = 5.0, 8.0, 0.37
"""What falls at once is left as it is; at most so much of a number goes."""
BY_CHANCE_LEAST = 0.6
"""Share of the characters from which on a text is drawn as a whole, and its words are chance."""
_BY_CHANCE = frozenset((SegmentKind.RANDOM, SegmentKind.WORDLIKE))
_KNOWN = frozenset(
    (
        *(SegmentKind.STOCK, SegmentKind.SHAPE, SegmentKind.PLATE, SegmentKind.DISGUISED),
        *(SegmentKind.QUOTATION, SegmentKind.RARE_WORD, SegmentKind.CONTEXT),
        SegmentKind.OF_A_CLASS,
    )
)
_WORDS = frozenset(
    (
        *(SegmentKind.WORD, SegmentKind.NAME, SegmentKind.PLACE, SegmentKind.FOREIGN_WORD),
        *(SegmentKind.COMMON_PASSWORD, SegmentKind.RARE_WORD),
    )
)
_SMALL = frozenset((SegmentKind.WORD, SegmentKind.FOREIGN_WORD))
_OF_A_PASSPHRASE = frozenset(
    (SegmentKind.LIST_WORD, SegmentKind.WORD, SegmentKind.SYMBOL, SegmentKind.DIGITS)
)


def scheme_log10(segments: tuple[Segment, ...], *, is_viewed: bool, guesses_log10: float) -> float:
    """Orders of ten that the scheme takes from a guess number."""
    above = (guesses_log10 - NONE_BELOW_LOG10) / (ALL_ABOVE_LOG10 - NONE_BELOW_LOG10)
    if above <= 0:
        return 0.0
    saved = VIEWED_LOG10 if is_viewed else 0.0
    kinds = {segment.kind for segment in segments}
    size = segments[-1].end
    copies = [s for s in segments if s.kind is SegmentKind.COPY]
    repeated = sum(s.end - s.start for s in copies)
    # What is written twice as a whole has no more parts than once.
    is_twice = 2 * repeated >= size - 1
    parts = len(segments) - len(copies) if is_twice else len(segments)
    # Words of one list from which phrases are drawn are each for itself.
    if not (SegmentKind.LIST_WORD in kinds and kinds <= _OF_A_PASSPHRASE):
        saved += EACH_FURTHER_LOG10 * min(max(0, parts - PARTS_FREE), FURTHER_MOST)
        small = words = abroad = 0
        for s in segments:
            if s.cost_log10 >= SMALL_BELOW_LOG10:
                words += s.kind in _WORDS
            else:
                small += s.kind in _SMALL
            abroad += s.kind is SegmentKind.FOREIGN_WORD
        saved += EACH_SMALL_LOG10 * min(small, SMALL_MOST)
        saved += ABROAD_LOG10 * min(max(0, abroad - 1), ABROAD_MOST)
        saved += EACH_WORD_LOG10 * min(max(0, words - 1), WORDS_MOST)
        saved += TOGETHER_LOG10 if parts > 1 else 0.0
    if parts > 1:
        saved += KNOWN_LOG10 if kinds & _KNOWN else 0.0
        is_repeated = repeated > 0 and not (is_twice or kinds & _BY_CHANCE)
        saved += COPY_LOG10 if is_repeated else 0.0
        by_chance = [s for s in segments if s.kind in _BY_CHANCE]
        # What repeats chance is chance.
        length = sum(s.end - s.start for s in by_chance) + repeated
        if length < BY_CHANCE_LEAST * size:
            saved += BY_CHANCE_SHARE * sum(s.cost_log10 for s in by_chance)
    return min(saved, SHARE_MOST * guesses_log10) * min(1.0, above)
