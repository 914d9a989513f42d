"""What the finders see in a text, before the likeliest way is chosen."""

import pytest

from newknot.core.strength.context import read_context
from newknot.core.strength.finders import found
from newknot.core.strength.reading import read
from newknot.core.strength.segments import Found, SegmentKind

K = SegmentKind


def offers(text: str, *own: str) -> list[Found]:
    return list(found(read(text), read_context(own)))


def seen(text: str, *own: str) -> set[tuple[SegmentKind, str]]:
    return {(f.kind, read(text).text[f.start : f.end]) for f in offers(text, *own)}


def least(text: str, kind: SegmentKind) -> float:
    whole = [f for f in offers(text) if f.kind is kind and f.end - f.start == len(text)]
    return min(f.which_log10 + f.kind_log10 for f in whole)


@pytest.mark.parametrize(
    ("text", "kind", "stretch"),
    [
        ("dragonfly", K.COMMON_PASSWORD, "dragonfly"),
        ("-abc123", K.COMMON_PASSWORD, "abc123"),
        ("Lisbon47", K.PLACE, "Lisbon"),
        ("kowalska", K.NAME, "kowalska"),
        ("l@nt3rn", K.WORD, "l@nt3rn"),
        ("nretnal", K.WORD, "nretnal"),
        ("kettlex", K.WORD, "kettle"),
        ("imyou", K.WORD, "my"),
        ("Schmetterling", K.FOREIGN_WORD, "Schmetterling"),
        ("fuenfzehn", K.FOREIGN_WORD, "fuenfzehn"),
        ("skyddar", K.FOREIGN_WORD, "skyddar"),
        ("бутылка", K.FOREIGN_WORD, "бутылка"),
        ("lanxtern", K.WORD, "lanxtern"),
        ("lantren", K.WORD, "lantren"),
        ("umbrela", K.WORD, "umbrela"),
        ("lamtern", K.WORD, "lamtern"),
        ("kettlelamtern", K.WORD, "lamtern"),
        ("velvet-gravy", K.LIST_WORD, "-gravy"),
        ("zivokavoku", K.WORDLIKE, "zivokavoku"),
        ("tobeornottobe", K.QUOTATION, "tobeornottobe"),
        ("To be, or not!", K.QUOTATION, "To be, or not"),
        ("tqbfjotld", K.QUOTATION, "tqbfjotld"),
        ("xasdfgh", K.KEYBOARD_WALK, "asdfgh"),
        ("qwertzui", K.KEYBOARD_WALK, "qwertzui"),
        ("azertyu", K.KEYBOARD_WALK, "azertyu"),
        ("7896321", K.KEYBOARD_WALK, "7896321"),
        ("!QAZ2wsx", K.KEYBOARD_WALK, "!QAZ2wsx"),
        ("cftyhn", K.KEYBOARD_WALK, "cfty"),
        ("acegik", K.SEQUENCE, "acegik"),
        ("97531", K.SEQUENCE, "97531"),
        ("567890", K.SEQUENCE, "567890"),
        ("rrrrr", K.REPEAT, "rrrrr"),
        ("xvqjxvqj", K.COPY, "xvqj"),
        ("XvqjxVqj", K.COPY, "xVqj"),
        ("kettleK3TTL3", K.COPY, "K3TTL3"),
        ("l4nt3rn-lantern7", K.COPY, "lantern"),
        ("orc-orc-orchard47", K.COPY, "orc-orc-"),
        ("vqxxqv", K.COPY, "xqv"),
        ("14.02.1979", K.DATE, "14.02.1979"),
        ("2/14/79", K.DATE, "2/14/79"),
        ("1979-02-14", K.DATE, "1979-02-14"),
        ("14021979", K.DATE, "14021979"),
        ("790214", K.DATE, "790214"),
        ("14feb1979", K.DATE, "14feb1979"),
        ("July 4", K.DATE, "July 4"),
        ("ab1987", K.YEAR, "1987"),
        ("+44 7700 900123", K.PHONE, "+44 7700 900123"),
        ("AB12 CDE", K.PLATE, "AB12 CDE"),
        ("B-XY 1234", K.PLATE, "B-XY 1234"),
        ("spinnaker88", K.RARE_WORD, "spinnaker"),
        ("Bandolier", K.RARE_WORD, "Bandolier"),
        ("sp1nn4ker", K.RARE_WORD, "sp1nn4ker"),
        ("παράθυρο", K.RARE_WORD, "παράθυρο"),
        ("parathyro", K.RARE_WORD, "parathyro"),
        ("fortytwofive", K.OF_A_CLASS, "fortytwofive"),
        ("Monday-Friday", K.OF_A_CLASS, "Monday-Friday"),
        ("kilolimamike7", K.OF_A_CLASS, "kilolimamike"),
        ("dreiundzwanzig", K.OF_A_CLASS, "dreiundzwanzig"),
        ("neonxenon", K.OF_A_CLASS, "neonxenon"),
        ("xhttp://rope", K.STOCK, "http://"),
        ("rope.com", K.STOCK, ".com"),
        ("3141592653", K.STOCK, "3141592653"),
        ("x149162536", K.STOCK, "149162536"),
        ("10.0.47.9", K.SHAPE, "10.0.47.9"),
        ("192.168.4.47kettle", K.SHAPE, "192.168.4.47"),
        ("14x63mm5", K.SHAPE, "14x63mm"),
        ("a4:3f:9b:00", K.SHAPE, "a4:3f:9b:00"),
        ("23:47", K.SHAPE, "23:47"),
        ("KV-2931-QA", K.SHAPE, "KV-2931-QA"),
        ("e2e4e7e5", K.SHAPE, "e2e4e7e5"),
        ("ropeMCMLXII", K.SHAPE, "MCMLXII"),
        ("a1b2c3d4", K.SEQUENCE, "a1b2c3d4"),
        ("3e4r5t6y", K.SEQUENCE, "3e4r5t6y"),
        ("azbycxdw", K.SEQUENCE, "azbycxdw"),
        ("edrftgyh7", K.SEQUENCE, "edrftgyh"),
        ("7,14,21,28", K.SEQUENCE, "7,14,21,28"),
        ("3-6-12-24", K.SEQUENCE, "3-6-12-24"),
        ("409681921638432768", K.SEQUENCE, "409681921638432768"),
        ("zhongguoren", K.OF_A_CLASS, "zhongguoren"),
        ("siebenundfuenfzig4", K.OF_A_CLASS, "siebenundfuenfzig"),
        ("AhKsTd", K.SHAPE, "AhKsTd"),
        ("R U2 F' D", K.SHAPE, "R U2 F' D"),
        ("e2-B10-G0", K.SHAPE, "e2-B10-G0"),
        ("Am7Gmaj7Dsus4", K.SHAPE, "Am7Gmaj7Dsus4"),
        ("3d20+4kettle", K.SHAPE, "3d20+4"),
        ("KettleS04E11", K.SHAPE, "S04E11"),
        ("ropeLvl47", K.SHAPE, "Lvl47"),
        ("47N12E", K.SHAPE, "47N12E"),
        ("KV29qa", K.PLATE, "KV29qa"),
        ("x9w8v7", K.SEQUENCE, "x9w8v7"),
        ("vzdhlpt", K.SEQUENCE, "vzdhlpt"),
        ("7418529", K.SEQUENCE, "7418529"),
        ("rghjuyt", K.KEYBOARD_WALK, "ghjuyt"),
        ("ggffddss", K.KEYBOARD_WALK, "ggffddss"),
        ("фывап", K.KEYBOARD_WALK, "фывап"),
        ("aoeuid", K.KEYBOARD_WALK, "aoeuid"),
        ("ropeeeee", K.REPEAT, "eeee"),
        ("ab!", K.SYMBOL, "!"),
        ("ab47", K.DIGITS, "47"),
    ],
)
def test_a_stretch_is_seen_for_what_it_is(text: str, kind: SegmentKind, stretch: str) -> None:
    assert (kind, stretch) in seen(text)


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        ("45.45.1979", K.DATE),
        ("1,2,4,7", K.SEQUENCE),
        ("rqwtey", K.SEQUENCE),
        ("AB12CDE9", K.PLATE),
        ("aB12CdE", K.PLATE),
        ("xvqj", K.COPY),
        ("bill", K.REPEAT),
        ("biii", K.WORD),
        ("1450", K.PHONE),
        ("gplam", K.KEYBOARD_WALK),
        ("tobe", K.QUOTATION),
    ],
)
def test_nothing_is_seen_where_nothing_is(text: str, kind: SegmentKind) -> None:
    assert kind not in {k for k, _ in seen(text)}


def test_own_words_and_their_guises_are_seen() -> None:
    for text in ("xgantry", "g4ntry", "yrtnag", "Gantry"):
        assert K.CONTEXT in {k for k, _ in seen(text, "Gantry Rentals")}
    assert (K.CONTEXT, "14021979") in seen("x14021979", "14.02.1979")


@pytest.mark.parametrize(
    ("kind", "texts"),
    [
        (K.WORD, ["kettle", "Kettle", "KETTLE", "keTtLe"]),
        (K.WORD, ["the", "lantern", "thimble"]),
        (K.KEYBOARD_WALK, ["qwer", "qwsx", "qwsz"]),
        (K.SEQUENCE, ["abcd", "mnop", "pnlj"]),
        (K.DATE, ["14021979", "14.02.1912"]),
        (K.SYMBOL, ["!", "&", "^", "☂"]),
    ],
)
def test_the_rarer_costs_more(kind: SegmentKind, texts: list[str]) -> None:
    costs = [least(text, kind) for text in texts]
    assert costs == sorted(costs)
    assert len(set(costs)) == len(costs)
