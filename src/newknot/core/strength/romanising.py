"""Texts of other scripts by their sounds, in Latin letters: Cyrillic and Greek letter by letter,
kana and hangul by syllables.
"""

import unicodedata

_ONE_SOUND = "абвгдеёзийклмнопрстуфхцыэαβγδεζηικλμνοπρσςτυφχω"
_SOUNDS = ("zh", "ch", "sh", "shch", "yu", "ya", "", "", "th", "ks", "ps")
_LETTERS = {
    **dict(zip(_ONE_SOUND, "abvgdeeziyklmnoprstufhcyeabgdezhiklmnoprsstufxw", strict=True)),
    **dict(zip("жчшщюяъьθξψ", _SOUNDS, strict=True)),
    **dict(zip("іїєґ", ("i", "yi", "ye", "g"), strict=True)),
}
_KANA = (
    "あいうえおかきくけこがぎぐげごさしすせそざじずぜぞたちつてとだぢづでど"
    "なにぬねのはひふへほばびぶべぼぱぴぷぺぽまみむめもやゆよらりるれろわをん"
)
_KANA_SOUNDS = (
    "a i u e o ka ki ku ke ko ga gi gu ge go sa shi su se so za ji zu ze zo ta chi tsu te to da ji "
    "zu de do na ni nu ne no ha hi fu he ho ba bi bu be bo pa pi pu pe po ma mi mu me mo ya yu yo "
    "ra ri ru re ro wa o n"
)
_DOUBLED, _LONG = "っ", "ー"
_SYLLABLES = dict(zip(_KANA, _KANA_SOUNDS.split(), strict=True)) | {_DOUBLED: "", _LONG: ""}
_SYLLABLES |= {
    begin + small: begun[:-1] + ("" if begin in "しじち" else "y") + vowel
    for begin, begun in [*_SYLLABLES.items()]
    if begun.endswith("i") and len(begun) > 1
    for small, vowel in zip("ゃゅょ", "auo", strict=True)
}
"""Hepburn's letters; a vowel's length is not written."""
_TO_HIRAGANA = {code: code - 0x60 for code in range(0x30A1, 0x30F7)}
_FIRST_HANGUL, _LAST_HANGUL, _VOWELS, _FINALS = 0xAC00, 0xD7A3, 21, 28
_FIRST_SOUNDS = "g kk n d tt r m b pp s ss - j jj ch k t p h".replace("-", "")
_VOWEL_SOUNDS = "a ae ya yae eo e yeo ye o wa wae oe yo u wo we wi yu eu ui i"
_FINAL_SOUNDS = "- k k k n n n t l k m l l l p l m p p t t ng t t k t p t".replace("-", "")
_HANGUL = tuple(one.split(" ") for one in (_FIRST_SOUNDS, _VOWEL_SOUNDS, _FINAL_SOUNDS))
"""First consonants, vowels and last consonants in Unicode's order (section 3.12), as they are
romanised one by one in Korea.
"""


def romanised(text: str) -> str | None:
    """The text as it is said, in ASCII; None where it is that already, or holds other signs."""
    if text.isascii():
        return None
    low = unicodedata.normalize("NFKC", text.lower()).translate(_TO_HIRAGANA)
    plain, at = "", 0
    while at < len(low):
        size = 2 if low[at : at + 2] in _SYLLABLES else 1
        sound = _SYLLABLES.get(low[at : at + size])
        if sound is None:
            sound = _said(low[at])
        elif sound == "u" and plain.endswith(("o", "u")):
            sound = ""
        plain += sound[:1] * (low[at - 1 : at] == _DOUBLED) + sound
        at += size
    return plain if plain.isascii() else None


def _said(c: str) -> str:
    if _FIRST_HANGUL <= ord(c) <= _LAST_HANGUL:
        rest, final = divmod(ord(c) - _FIRST_HANGUL, _FINALS)
        first, vowel = divmod(rest, _VOWELS)
        return _HANGUL[0][first] + _HANGUL[1][vowel] + _HANGUL[2][final]
    if c in _LETTERS or c.isascii():
        return _LETTERS.get(c, c)
    base = unicodedata.normalize("NFD", c)[0]
    return _LETTERS.get(base, c)
