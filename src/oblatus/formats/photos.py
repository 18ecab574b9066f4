"""Photos re-encoded: turned as they were held, made smaller, and with nothing in them but the picture."""

from __future__ import annotations

import io

from PIL import Image, ImageOps

from oblatus.errors import fault

LARGEST_BYTES = 12_000_000
MOST_PIXELS = 60_000_000
LONGEST_SIDE = 1600
QUALITY = 85


def reencode_photo(content: bytes) -> tuple[bytes, int, int]:
    """A PNG or JPEG as a JPEG of at most 1600 pixels a side without any metadata; width and height [pixels].

    Raises
    ------
    InputError
        If it is too large, no PNG or JPEG, or damaged.
    """
    if len(content) > LARGEST_BYTES:
        raise fault("photo", f"is larger than {LARGEST_BYTES // 1_000_000} MB")
    try:
        with Image.open(io.BytesIO(content), formats=("PNG", "JPEG")) as found:
            if found.width * found.height > MOST_PIXELS:
                raise fault(
                    "photo", f"has {found.width} x {found.height} pixels: at most {MOST_PIXELS // 1_000_000} million"
                )
            found.draft("RGB", (2 * LONGEST_SIDE, 2 * LONGEST_SIDE))
            picture = ImageOps.exif_transpose(found)
            picture.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
            picture = _on_white(picture)
    except (OSError, SyntaxError, ValueError, Image.DecompressionBombError) as error:
        raise fault("photo", "is no PNG or JPEG that can be read") from error
    out = io.BytesIO()
    picture.save(out, "JPEG", quality=QUALITY, optimize=True)
    return out.getvalue(), picture.width, picture.height


def _on_white(picture: Image.Image) -> Image.Image:
    """The picture alone, without transparency; a new image carries nothing over from the file."""
    clean = Image.new("RGB", picture.size, "white")
    solid = picture.convert("RGBA")
    clean.paste(solid, mask=solid)
    return clean
