"""Photographs are read and written anew: upright, bounded, and with nothing of the camera left in the file."""

from __future__ import annotations

import io
import struct
import zlib

import numpy as np
import pytest
from PIL import Image, ImageCms

from photograph_files import MAKER, camera_file, pixels
from vianda.core.basis.errors import CoreError, OutOfRangeError, UnreadableEntryError
from vianda.interchange.photograph import KEPT_SIDE, LARGEST_BYTES, LEAST_SIDE, MOST_SIDE, SMALL_SIDE, read_photograph


def _segments(jpeg: bytes) -> set[int]:
    """Markers of a JPEG file up to its picture (ITU-T T.81, table B.1)."""
    found, at = set(), 2
    while jpeg[at + 1] != 0xDA:
        assert jpeg[at] == 0xFF
        found.add(jpeg[at + 1])
        at += 2 + int.from_bytes(jpeg[at + 2 : at + 4], "big")
    return found


def _colour(jpeg: bytes, x: float, y: float) -> np.ndarray:
    with Image.open(io.BytesIO(jpeg)) as opened:
        return np.array(opened.getpixel((int(x * (opened.width - 1)), int(y * (opened.height - 1)))))


def _saved(picture: Image.Image, kind: str = "PNG", **more) -> bytes:
    out = io.BytesIO()
    picture.save(out, kind, **more)
    return out.getvalue()


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP"])
def test_what_the_camera_wrote_beside_the_picture_is_gone(kind) -> None:
    given = camera_file(kind=kind)
    assert MAKER.encode() in given
    kept = read_photograph(given)
    for file in (kept.jpeg, kept.small):
        assert MAKER.encode() not in file
        assert b"back door" not in file
        with Image.open(io.BytesIO(file)) as opened:
            assert dict(opened.getexif()) == {}
            assert not {"icc_profile", "comment", "exif", "xmp"} & set(opened.info)
        # JFIF's own header (E0), tables and the frame; no other place for words to be in.
        assert _segments(file) <= {0xE0, 0xDB, 0xC0, 0xC2, 0xC4, 0xDD}


@pytest.mark.parametrize(
    ("turned", "sides", "red"),
    [(1, (640, 480), (0, 0)), (3, (640, 480), (1, 0)), (6, (480, 640), (0, 0)), (8, (480, 640), (0, 1))],
)
def test_a_photograph_stands_upright(turned, sides, red) -> None:
    """How the camera was held is a number in the file (Exif 2.32, tag 274); it is turned before that is lost."""
    kept = read_photograph(camera_file(turned=turned))
    assert (kept.width, kept.height) == sides
    # The left edge of the sensor is red: where it lies after turning.
    r, _, b = _colour(kept.jpeg, *red)
    assert (r > 200, b < 60) == (True, True)


@pytest.mark.parametrize(
    ("given", "kept_as"),
    [((640, 480), (640, 480)), ((1600, 900), (1600, 900)), ((4000, 3000), (1600, 1200)), ((900, 2700), (533, 1600))],
)
def test_large_ones_are_kept_smaller_and_small_ones_as_they_are(given, kept_as) -> None:
    kept = read_photograph(camera_file(*given))
    assert (kept.width, kept.height) == kept_as
    for file, side in ((kept.jpeg, KEPT_SIDE), (kept.small, SMALL_SIDE)):
        with Image.open(io.BytesIO(file)) as opened:
            assert opened.format == "JPEG"
            assert max(opened.size) <= side
    assert len(kept.small) < 30_000


@pytest.mark.parametrize("mode", ["L", "P", "CMYK", "I;16", "1"])
def test_every_way_to_write_colour_is_read(mode) -> None:
    if mode == "I;16":
        picture = Image.fromarray(np.full((40, 40), 30000, dtype="uint16"))
    else:
        picture = pixels(40, 40).convert(mode)
    kept = read_photograph(_saved(picture, "JPEG" if mode == "CMYK" else "PNG"))
    assert (kept.width, kept.height) == (40, 40)


def test_what_is_clear_stands_on_white() -> None:
    picture = Image.new("RGBA", (60, 60), (200, 0, 0, 0))
    assert list(_colour(read_photograph(_saved(picture)).jpeg, 0.5, 0.5)) == [255, 255, 255]


def test_a_wide_profile_is_turned_into_what_every_screen_shows_and_a_broken_one_does_no_harm() -> None:
    grey = Image.new("RGB", (60, 60), (128, 128, 128))
    own = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()
    for profile in (own, b"no profile at all", own[:200]):
        kept = read_photograph(_saved(grey, "JPEG", icc_profile=profile))
        assert _colour(kept.jpeg, 0.5, 0.5) == pytest.approx([128, 128, 128], abs=3)


def _claims(width: int, height: int) -> bytes:
    """A PNG of a hundred bytes that says it is so large (PNG specification, IHDR)."""

    def chunk(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    head = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(b"")) + chunk(b"IEND", b"")


WHOLE = camera_file()


@pytest.mark.parametrize(
    ("given", "refusal", "says"),
    [
        (b"", UnreadableEntryError, "nothing in the file"),
        (b"a burger", UnreadableEntryError, "JPEG, PNG or WebP"),
        (b"<svg xmlns='http://www.w3.org/2000/svg'><script>1</script></svg>", UnreadableEntryError, "JPEG, PNG"),
        (_saved(pixels(40, 40), "GIF"), UnreadableEntryError, "JPEG, PNG or WebP"),
        (_saved(pixels(40, 40), "TIFF"), UnreadableEntryError, "JPEG, PNG or WebP"),
        (b"\x00\x00\x00\x18ftypheic" + b"\x00" * 500, UnreadableEntryError, "JPEG, PNG or WebP"),
        (WHOLE[: len(WHOLE) // 2], UnreadableEntryError, "broken off"),
        (_saved(pixels(300, 300))[:-600], UnreadableEntryError, "broken off"),
        (_claims(60_000, 60_000), OutOfRangeError, "million"),
        (_claims(MOST_SIDE + 1, 20), OutOfRangeError, "million"),
        (_claims(600, 600), UnreadableEntryError, "broken off"),
        (_saved(pixels(LEAST_SIDE - 1, 40)), OutOfRangeError, f"at least {LEAST_SIDE}"),
        (WHOLE + b"\x00" * LARGEST_BYTES, OutOfRangeError, "16 MB"),
    ],
    ids=["empty", "words", "svg", "gif", "tiff", "heic", "half-jpeg", "half-png", "bomb", "ribbon", "hollow", "dot",
         "heavy"],
)  # fmt: skip
def test_what_cannot_be_kept_is_refused_with_a_reason(given, refusal, says) -> None:
    with pytest.raises(CoreError, match=says) as caught:
        read_photograph(given)
    assert type(caught.value) is refusal


def test_the_smallest_and_the_largest_that_are_read() -> None:
    dot = read_photograph(_saved(pixels(LEAST_SIDE, LEAST_SIDE)))
    assert (dot.width, dot.height) == (LEAST_SIDE, LEAST_SIDE)
    # 52 million pixels, one bit each.
    assert read_photograph(_saved(Image.new("1", (8000, 6500)))).width == KEPT_SIDE
    with pytest.raises(OutOfRangeError, match="8000 × 6501"):
        read_photograph(_claims(8000, 6501))
