"""Texts that stand in a code or in other letters, read back: None where a text cannot be of that
code.
"""

import base64
import binascii
import re
import unicodedata
from collections import Counter

_SIGNS = (
    ".- -... -.-. -.. . ..-. --. .... .. .--- -.- .-.. -- -. --- .--. --.- .-. ... - ..- ...- "
    ".-- -..- -.-- --.. ----- .---- ..--- ...-- ....- ..... -.... --... ---.. ----."
)
_MORSE = dict(zip(_SIGNS.split(), "abcdefghijklmnopqrstuvwxyz0123456789", strict=True))
"""ITU-R M.1677-1."""
_PRESSED = {
    key * presses: letter
    for key, letters in zip(
        "23456789", ("abc", "def", "ghi", "jkl", "mno", "pqrs", "tuv", "wxyz"), strict=True
    )
    for presses, letter in enumerate(letters, 1)
}
_LOOK_ALIKES = str.maketrans(
    "βελσπμωδηаеосрхуіјѕԁһӏвмнктАВЕКМНОРСТХУІЈЅαοινκρτυχΑΒΕΖΗΙΚΜΝΟΡΤΥΧ",
    "belspmwdnaeocpxyijsdhlbmhktABEKMHOPCTXYIJSaoivkptuxABEZHIKMNOPTYX",
)
_LOOK_ALIKES |= str.maketrans("ᴀʙᴄᴅᴇꜰɢʜɪᴊᴋʟᴍɴᴏᴘǫʀꜱᴛᴜᴠᴡʏᴢ", "abcdefghijklmnopqrstuvwyz")
_UPSIDE_DOWN = str.maketrans("ɐqɔpǝɟƃɥᴉɾʞlɯuodbɹsʇnʌʍxʎz⅄∀", "abcdefghijklmnopqrstuvwxyzYA")
_LOOK_ALIKES |= {
    first + at: ord("a") + at for first in (0x1F1E6, 0x1F170, 0x1F150) for at in range(26)
}
"""Those of flags, and in squares and circles."""
_BRAILLE = str.maketrans("⠁⠃⠉⠙⠑⠋⠛⠓⠊⠚⠅⠇⠍⠝⠕⠏⠟⠗⠎⠞⠥⠧⠺⠭⠽⠵", "abcdefghijklmnopqrstuvwxyz")
_HEXADECIMAL_LETTERS = 8
_ESCAPE = re.compile(
    r"(?:\\x|\\u00|%|=|U\+00|&#x)(?P<hex>[2-7][0-9A-Fa-f]);?"
    r"|\\(?P<octal>[01][0-7]{2})|&#(?P<number>\d{2,3});"
)
_ESCAPED = re.compile(f"(?:{re.sub('[?]P<[a-z]+>', '?:', _ESCAPE.pattern)}){{4,}}")
_SQUARE = "abcdefghijklmnopqrstuvwxyz".replace("j", "")


def from_hexadecimal(text: str) -> str | None:
    """UTF-8 in pairs of hexadecimal digits, ten and more of them, or eight that say letters."""
    if len(text) % 2 or not re.fullmatch(r"[0-9a-fA-F]{8,}", text):
        return None
    read = _readable(bytes.fromhex(text))
    return read if read and (len(text) > _HEXADECIMAL_LETTERS or read.isalpha()) else None


def from_escapes(text: str) -> str | None:
    """Each character as a program or a page may write it: by its number, with signs before it."""
    if not _ESCAPED.fullmatch(text):
        return None
    characters = (
        chr(int(hit["hex"], 16))
        if hit["hex"]
        else chr(int(hit["octal"], 8))
        if hit["octal"]
        else chr(int(hit["number"]))
        for hit in _ESCAPE.finditer(text)
    )
    return "".join(characters)


def from_base64(text: str) -> str | None:
    """RFC 4648, sections 4 and 5, with or without what fills it up."""
    if not re.fullmatch(r"[A-Za-z0-9+/_-]{6,}={0,2}", text):
        return None
    bare = text.rstrip("=").replace("-", "+").replace("_", "/")
    try:
        return _readable(base64.b64decode(bare + "=" * (-len(bare) % 4), validate=True))
    except (binascii.Error, ValueError):
        return None


def from_base32(text: str) -> str | None:
    """RFC 4648, section 6, in one case."""
    if not re.fullmatch(r"[A-Z2-7]{8,}={0,6}|[a-z2-7]{8,}={0,6}", text):
        return None
    bare = text.upper().rstrip("=")
    try:
        return _readable(base64.b32decode(bare + "=" * (-len(bare) % 8)))
    except (binascii.Error, ValueError):
        return None


def from_square(text: str) -> str | None:
    """Row and column of each letter in five rows of five, i and j being one."""
    if len(text) % 2 or not re.fullmatch(r"[1-5]{10,}", text):
        return None
    places = zip(map(int, text[::2]), map(int, text[1::2]), strict=True)
    return "".join(_SQUARE[5 * row + column - 6] for row, column in places)


def _readable(raw: bytes) -> str | None:
    try:
        text = raw.decode("utf-8")
    except UnicodeDecodeError:
        return None
    odd = any(unicodedata.category(c).startswith("C") for c in text)
    return None if odd else text


def from_binary(text: str) -> str | None:
    """UTF-8 in eights of noughts and ones, apart or not."""
    bare = re.sub(r"[ _.-]", "", text)
    if len(bare) % 8 or not re.fullmatch(r"[01]{16,}", bare):
        return None
    return _readable(bytes(int(bare[at : at + 8], 2) for at in range(0, len(bare), 8)))


def from_numbers(text: str) -> str | None:
    """The numbers of ASCII characters with the same sign between."""
    if not re.fullmatch(r"\d{2,3}(?:([-., ])\d{2,3})(?:\1\d{2,3}){2,}", text):
        return None
    codes = [int(number) for number in re.split(r"\D", text)]
    return "".join(map(chr, codes)) if all(0x20 < code < 0x7F for code in codes) else None


def from_presses(text: str) -> str | None:
    """Each letter by as many presses as it takes; ITU-T E.161."""
    if not re.fullmatch(r"[2-9][02-9]{5,}", text):
        return None
    letters = (
        _PRESSED.get(run.group()) for run in re.finditer(r"([79])\1{0,3}|([2-68])\2{0,2}|0", text)
    )
    return "".join(letter or " " for letter in letters)


def from_morse(text: str) -> str | None:
    """Dots and dashes, a blank, stroke or bar between letters."""
    if not re.fullmatch(r"[-. /|_]{6,}", text):
        return None
    signs = re.split(r"[ /|]+", text.replace("_", "-").strip(" /|"))
    return "".join(map(_MORSE.__getitem__, signs)) if _MORSE.keys() >= {*signs} else None


def from_look_alikes(text: str) -> str | None:
    """Wide, mathematical or Cyrillic letters that look like those of the Latin alphabet."""
    if text.isascii():
        return None
    plain = unicodedata.normalize("NFKC", text).translate(_LOOK_ALIKES)
    return plain if plain.isascii() and len(plain) == len(text) else None


def from_braille(text: str) -> str | None:
    """Letters in patterns of six dots."""
    plain = text.translate(_BRAILLE)
    return None if text.isascii() or not plain.isascii() else plain


def from_upside_down(text: str) -> str | None:
    """Letters that look like others turned about, in their order backwards."""
    turned = text[::-1].translate(_UPSIDE_DOWN)
    return None if text.isascii() or not turned.isascii() else turned


def without_marks(text: str) -> str | None:
    """Without the same mark on every letter."""
    if text.isascii():
        return None
    marks = Counter(c for c in unicodedata.normalize("NFD", text) if unicodedata.combining(c))
    if len(marks) != 1 or marks.total() < max(3, len(text) / 2 - 1):
        return None
    return "".join(c for c in unicodedata.normalize("NFD", text) if not unicodedata.combining(c))


def from_47(text: str) -> str | None:
    """Each printable ASCII character moved by 47 among 94."""
    if not all("!" <= c <= "~" for c in text):
        return None
    return "".join(chr(33 + (ord(c) - 33 + 47) % 94) for c in text)
