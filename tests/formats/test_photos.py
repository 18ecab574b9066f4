"""A photo leaves its metadata behind, stands upright, and is refused when it is none."""

from __future__ import annotations

import io
import zlib

import pytest
from PIL import Image

from oblatus.errors import InputError
from oblatus.formats import photos
from oblatus.formats.photos import reencode_photo

PLACE = "taken at a secret place"


def jpeg(width=400, height=200, orientation=6) -> bytes:
    made = Image.new("RGB", (width, height), "olive")
    made.paste("white", (0, 0, width // 2, height))
    exif = Image.Exif()
    exif[0x0112] = orientation  # turned a quarter to the right
    exif[0x010E] = PLACE
    out = io.BytesIO()
    made.save(out, "JPEG", exif=exif, comment=PLACE.encode())
    return out.getvalue()


def test_metadata_is_gone_and_the_picture_stands_as_it_was_held():
    content = jpeg()
    assert PLACE.encode() in content
    clean, width, height = reencode_photo(content)
    assert (width, height) == (200, 400)
    assert PLACE.encode() not in clean
    with Image.open(io.BytesIO(clean)) as found:
        assert (found.format, dict(found.getexif()), "comment" in found.info) == ("JPEG", {}, False)
        # its white half was on the left and is on top now
        assert min(found.getpixel((100, 50))) > 240
        assert max(found.getpixel((100, 350))) < 140


def test_a_large_one_is_made_smaller_and_a_transparent_one_stands_on_white():
    made = Image.new("RGBA", (3000, 1500), (0, 0, 0, 0))
    out = io.BytesIO()
    made.save(out, "PNG")
    clean, width, height = reencode_photo(out.getvalue())
    assert (width, height) == (1600, 800)
    with Image.open(io.BytesIO(clean)) as found:
        assert min(found.getpixel((800, 400))) > 250


def test_what_is_no_photo_is_refused(monkeypatch):
    gif = io.BytesIO()
    Image.new("RGB", (5, 5)).save(gif, "GIF")
    for content in (b"", b"<svg/>", gif.getvalue(), jpeg()[:200], zlib.compress(b"0" * 1000)):
        with pytest.raises(InputError, match="no PNG or JPEG"):
            reencode_photo(content)
    monkeypatch.setattr(photos, "MOST_PIXELS", 1000)
    with pytest.raises(InputError, match="pixels"):
        reencode_photo(jpeg())
    monkeypatch.setattr(photos, "LARGEST_BYTES", 100)
    with pytest.raises(InputError, match="larger than"):
        reencode_photo(jpeg())
