"""What it takes to type a text: key presses on a computer, taps on a telephone.

Computer: a US keyboard, or one of the same size with other letters; a stretch of shifted characters
costs one press of Shift beside its own.
Telephone: four layers (small letters, capitals for one character, digits with common symbols,
further symbols); each change of layer is a tap; the blank is on every layer. What a telephone
does by itself (capitals at the start, corrections) is off in a password field.
"""

_SHIFTED = set('~!@#$%^&*()_+{}|:"<>?')
_SECOND_LAYER = set("0123456789-/:;()$&@\".,?!'")
_THIRD_LAYER = set("[]{}#%^*+=_\\|~<>`")


def key_presses(text: str) -> int:
    """Presses on a computer's keyboard."""
    presses, held = 0, False
    for c in text:
        shifted = c in _SHIFTED or c.isupper()
        presses += 1 + (shifted and not held)
        held = shifted
    return presses


def phone_taps(text: str) -> int:
    """Taps on a telephone's keyboard, changes of layer counted."""
    taps, layer = 0, 1
    for c in text:
        taps += 1
        if c == " ":
            continue
        wanted = 2 if c in _SECOND_LAYER else 3 if c in _THIRD_LAYER else 1
        if wanted != layer:
            # The third layer is reached by way of the second; the letters from either at once.
            taps += 2 if (layer, wanted) == (1, 3) else 1
            layer = wanted
        taps += wanted == 1 and c.isupper()
    return taps
