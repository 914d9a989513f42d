"""A program of its own: reads a picture from its input, prints the texts of its QR codes as JSON.

It runs without keys, under limits of time and memory, because pictures may be made to harm a
decoder. What it cannot take it says as {"refused": reason}.
"""

import io
import json
import resource
import sys

import zxingcpp
from PIL import Image

CPU_S = 10
MEMORY_BYTES = 1 << 30
INPUT_MOST = 8 << 20
PIXELS_MOST = 20_000_000
FORMATS = ("PNG", "JPEG", "GIF", "WEBP", "BMP")
CODES_MOST = 20


def main() -> None:
    """Once, then ends."""
    resource.setrlimit(resource.RLIMIT_CPU, (CPU_S, CPU_S))
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    json.dump(_read(sys.stdin.buffer.read(INPUT_MOST + 1)), sys.stdout)


def _read(body: bytes) -> dict[str, object]:
    if len(body) > INPUT_MOST:
        return {"refused": f"is larger than {INPUT_MOST >> 20} MiB"}
    try:
        # Only the header is read here: the size is known before a pixel is decoded.
        picture = Image.open(io.BytesIO(body), formats=FORMATS)
        if picture.width * picture.height > PIXELS_MOST:
            return {"refused": f"has more than {PIXELS_MOST // 1_000_000} million pixels"}
        drawn = picture.convert("RGBA")
        # A picture may be of white or of dark ink on nothing.
        found = _codes(drawn, "white") or _codes(drawn, "black")
    except Exception:
        return {"refused": "is no picture that can be read (PNG, JPEG, GIF, WebP, BMP)"}
    return {"codes": found[:CODES_MOST]}


def _codes(drawn: Image.Image, ground: str) -> list[str]:
    sheet = Image.new("RGBA", drawn.size, ground)
    sheet.alpha_composite(drawn)
    qr_codes = zxingcpp.BarcodeFormats(zxingcpp.BarcodeFormat.QRCode)
    return [one.text for one in zxingcpp.read_barcodes(sheet.convert("L"), qr_codes)]


if __name__ == "__main__":
    main()
