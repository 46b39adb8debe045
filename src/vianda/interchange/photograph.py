"""A photograph as a camera gives it, read and written anew: upright, small enough to keep, and nothing in it but light.

What a camera writes beside the picture (place, time, maker, preview) is not carried over: the kept file is made from
the pixels alone.
"""

from __future__ import annotations

import io
import threading
from dataclasses import dataclass

from PIL import Image, ImageCms, ImageOps, UnidentifiedImageError

from vianda.core.basis.errors import CoreError, OutOfRangeError, UnreadableEntryError

# What a camera or a browser hands over. Some telephones keep HEIC; their browsers send JPEG where JPEG is asked for.
READ_AS = ("JPEG", "PNG", "WEBP")
MEDIA_TYPES = ("image/jpeg", "image/png", "image/webp")
LARGEST_BYTES = 16_000_000
# The largest sensor of a telephone has about 50 million pixels; a small file can claim far more.
MOST_PIXELS = 52_000_000
TOO_MANY = f"The photograph is too large; at most {MOST_PIXELS // 1_000_000} million pixels are read."
LEAST_SIDE, MOST_SIDE = 16, 20_000
# The longer side of what is kept and of what lists show, pixels: it fills a screen, and a page of lists stays light.
KEPT_SIDE, SMALL_SIDE = 1600, 320
QUALITY = 82

# One at a time: an opened picture takes a hundred megabytes and more.
_one = threading.Lock()


@dataclass(frozen=True, slots=True)
class KeptPhotograph:
    """A photograph to keep: two JPEG files of it, and the larger one's sides in pixels."""

    jpeg: bytes
    small: bytes
    width: int
    height: int


def read_photograph(data: bytes) -> KeptPhotograph:
    """Read a photograph and write it anew.

    Raises UnreadableEntryError for what is no JPEG, PNG or WebP or is broken off, OutOfRangeError for too many pixels.
    """
    if not data:
        raise UnreadableEntryError("There is nothing in the file.")
    if len(data) > LARGEST_BYTES:
        raise OutOfRangeError(f"A photograph may take at most {LARGEST_BYTES // 1_000_000} MB; send a smaller one.")
    with _one:
        try:
            with Image.open(io.BytesIO(data), formats=READ_AS) as opened:
                _check(opened.size)
                # A JPEG is read at a half or a quarter where that is enough: less to hold.
                opened.draft("RGB", (KEPT_SIDE, KEPT_SIDE))
                upright = ImageOps.exif_transpose(_as_rgb(opened))
        except UnidentifiedImageError:
            raise UnreadableEntryError("This is no photograph that can be read: send JPEG, PNG or WebP.") from None
        except Image.DecompressionBombError:
            raise OutOfRangeError(TOO_MANY) from None
        except CoreError:
            raise
        except (OSError, SyntaxError, ValueError, EOFError):
            raise UnreadableEntryError("The photograph is broken off or damaged; send it again.") from None
        kept = ImageOps.contain(upright, (KEPT_SIDE, KEPT_SIDE)) if max(upright.size) > KEPT_SIDE else upright
        small = ImageOps.contain(kept, (SMALL_SIDE, SMALL_SIDE))
        return KeptPhotograph(_jpeg(kept), _jpeg(small), kept.width, kept.height)


def _check(size: tuple[int, int]) -> None:
    width, height = size
    if width * height > MOST_PIXELS or max(size) > MOST_SIDE:
        raise OutOfRangeError(f"{TOO_MANY} It has {width} × {height}.")
    if min(size) < LEAST_SIDE:
        raise OutOfRangeError(f"The photograph has {width} × {height} pixels; a side has at least {LEAST_SIDE}.")


def _as_rgb(opened: Image.Image) -> Image.Image:
    """Red, green and blue as every screen takes them; what is clear stands on white."""
    profile = opened.info.get("icc_profile")
    turned = opened.getexif().get(0x0112, 1)
    if opened.mode in ("RGBA", "LA", "PA") or "transparency" in opened.info:
        clear = opened.convert("RGBA")
        picture = Image.new("RGB", clear.size, "white")
        picture.paste(clear, mask=clear.getchannel("A"))
    elif profile and opened.mode in ("RGB", "CMYK"):
        picture = _by_profile(opened, profile)
    else:
        picture = opened.convert("RGB")
    # Only which way is up is carried on, for as long as it takes to turn it.
    picture.getexif()[0x0112] = turned
    return picture


def _by_profile(opened: Image.Image, profile: bytes) -> Image.Image:
    try:
        own = ImageCms.ImageCmsProfile(io.BytesIO(profile))
        changed = ImageCms.profileToProfile(opened, own, ImageCms.createProfile("sRGB"), outputMode="RGB")
    except (ImageCms.PyCMSError, OSError):
        changed = None
    # A profile that cannot be used leaves the colours a little off, not the photograph unread.
    return opened.convert("RGB") if changed is None else changed


def _jpeg(picture: Image.Image) -> bytes:
    # A new picture of the pixels alone: nothing that came with the file can ride along.
    bare = Image.new("RGB", picture.size)
    bare.paste(picture)
    out = io.BytesIO()
    bare.save(out, "JPEG", quality=QUALITY, optimize=True, progressive=True)
    return out.getvalue()


def read_kept(data: bytes) -> KeptPhotograph:
    """A photograph that was kept before: its file stays as it is where only light is in it, else it is written anew."""
    with _one:
        try:
            with Image.open(io.BytesIO(data), formats=("JPEG",)) as opened:
                _check(opened.size)
                bare = all(name == "APP0" for name, _ in getattr(opened, "applist", ())) and data.endswith(b"\xff\xd9")
                if bare and opened.mode == "RGB" and max(opened.size) <= KEPT_SIDE:
                    picture = opened.convert("RGB")
                    small = ImageOps.contain(picture, (SMALL_SIDE, SMALL_SIDE))
                    return KeptPhotograph(data, _jpeg(small), *picture.size)
        except (UnidentifiedImageError, OSError, SyntaxError, ValueError, EOFError, Image.DecompressionBombError):
            pass  # Told by the reading below.
    return read_photograph(data)
