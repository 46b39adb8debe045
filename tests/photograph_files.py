"""Photographs as a telephone makes them, with all that it writes beside the picture."""

from __future__ import annotations

import io

import numpy as np
from PIL import Image

MAKER, PLACE = "Invented Camera Works", (59.0, 21.0, 36.0)


def pixels(width: int, height: int) -> Image.Image:
    """Red to the left, blue to the right, brighter downwards: which way is up can be told."""
    across = np.linspace(0, 255, width)[None, :].repeat(height, 0)
    down = np.linspace(0, 255, height)[:, None].repeat(width, 1)
    return Image.fromarray(np.stack([255 - across, down, across], axis=2).astype("uint8"), "RGB")


def camera_file(
    width: int = 640, height: int = 480, *, turned: int = 1, kind: str = "JPEG", profile: bytes = b""
) -> bytes:
    """A file with maker, place, time, a comment and a preview."""
    picture = pixels(width, height)
    exif = Image.Exif()
    exif[0x010F] = MAKER
    exif[0x0112] = turned
    exif[0x9003] = "2026:07:04 19:30:00"
    place = exif.get_ifd(0x8825)
    place[1], place[2], place[3], place[4] = "N", PLACE, "E", PLACE
    more: dict = {"exif": exif}
    if kind == "JPEG":
        more["comment"] = b"at the back door of the galley"
    if profile:
        more["icc_profile"] = profile
    out = io.BytesIO()
    picture.save(out, kind, **more)
    return out.getvalue()
