"""QR codes."""

import segno


def qr_svg(text: str) -> str:
    """A QR code as inline SVG, of any size; error correction M."""
    return str(segno.make(text, error="m").svg_inline(scale=1, border=2, omitsize=True))
