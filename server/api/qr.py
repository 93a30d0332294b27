"""QR codes."""

import segno


def qr_svg(text: str) -> str:
    """A QR code as inline SVG, of any size; error correction M."""
    return str(segno.make(text, error="m").svg_inline(scale=1, border=2, omitsize=True))


def qr_image(text: str) -> str:
    """A QR code as the address of an image that holds it (``data:image/svg+xml``)."""
    return str(segno.make(text, error="m").svg_data_uri(scale=5, border=3, light="#fff"))
