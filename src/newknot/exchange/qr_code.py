"""A text as a QR code (ISO/IEC 18004), by its modules, so that whoever shows it draws it."""

BORDER_MODULES = 4


def qr_rows(text: str) -> list[str]:
    """Rows of 0 and 1 with the quiet border that the standard asks for; error correction M."""
    # Loaded when one is shown: a start need not wait for it.
    import segno

    code = segno.make(text, error="m", micro=False)
    return ["".join(map(str, row)) for row in code.matrix_iter(border=BORDER_MODULES)]
