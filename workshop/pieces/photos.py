"""The photograph of a slab or a slice, kept beside its piece to be drawn over."""

from __future__ import annotations

import base64
import fcntl
import io
from uuid import UUID

from django.conf import settings
from django.db import transaction
from django.http import Http404
from PIL import Image, ImageOps, UnidentifiedImageError

from splay.errors import BadInput, Fault
from workshop.pieces.actions import Maker, get_row, named
from workshop.pieces.models import PiecePhoto

LONGEST_PX = 1600
"""More than this is of no use under a drawing."""
MOST_PIXELS = {"JPEG": 24_000_000, "PNG": 24_000_000, "WEBP": 8_000_000}
"""What is opened at all, by kind. A JPEG is decoded small, a WebP is whole several times over in memory."""
MOST_IN_PASSES = 12_000_000
"""A JPEG in passes is kept whole by its decoder, three numbers a pixel."""
_QUALITY = 82
_BROKEN = (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError)


def taken_over(raw: bytes) -> tuple[bytes, int, int]:
    """A photograph out of an archive, with its width and height: the same file where it is plain and small
    already, for each writing anew costs a little."""
    image, width, height = plain_jpeg(raw)
    return raw if is_plain_jpeg(raw) else image, width, height


def from_base64(coded: str, field: str) -> tuple[bytes, int, int]:
    """The same of one in an open file; BadInput names its `field`."""
    try:
        raw = base64.b64decode(coded, validate=True)
    except ValueError:
        fault = Fault(field, "no base64", "a JPEG in base64", "Leave it out, or take it anew.")
        raise BadInput(fault) from None
    return taken_over(raw)


def plain_jpeg(given: bytes) -> tuple[bytes, int, int]:
    """A picture upright, small enough and without what a camera wrote into it (its place among that).

    The JPEG, its width and its height in pixels; BadInput where it cannot be seen.
    """
    try:
        with Image.open(io.BytesIO(given), formats=tuple(MOST_PIXELS)) as opened:
            size = opened.size
            most = MOST_PIXELS[str(opened.format)]
            if opened.info.get("progressive"):
                most = min(most, MOST_IN_PASSES)
            small = _small(opened) if size[0] * size[1] <= most else None
    except _BROKEN:
        raise _unseen("what is no picture", "Choose a photograph, or save it as one of these.") from None
    if small is None:
        do = f"Make it smaller first: {most / 1e6:.0f} million pixels of this kind at most."
        raise _unseen(f"{size[0]} by {size[1]} pixels", do)
    # What the camera or anybody wrote beside the picture would be written out again with it.
    upright = ImageOps.exif_transpose(small).convert("RGB")
    upright.info.clear()
    made = io.BytesIO()
    upright.save(made, "JPEG", quality=_QUALITY)
    return made.getvalue(), upright.width, upright.height


def is_plain_jpeg(given: bytes) -> bool:
    """Whether a picture is a JPEG already that is small enough and has nothing written beside it."""
    with Image.open(io.BytesIO(given)) as opened:
        small = max(opened.size) <= LONGEST_PX
        beside = {name for name, _ in getattr(opened, "applist", [("none", b"")])}
        return opened.format == "JPEG" and small and beside == {"APP0"}


def _small(opened: Image.Image) -> Image.Image:
    """The picture no larger than it is kept, one at a time in the whole workshop."""
    with (settings.DATA_DIR / "one-picture.lock").open("wb") as turn:
        fcntl.flock(turn, fcntl.LOCK_EX)
        # A JPEG can be decoded at an eighth, a quarter or half its size; others ignore this.
        opened.draft("RGB", (LONGEST_PX, LONGEST_PX))
        if opened.mode not in ("RGBA", "LA"):
            opened.thumbnail((LONGEST_PX, LONGEST_PX))
            return opened.copy()
        # Made smaller a channel at a time: all at once, one that can be seen through is copied whole.
        bands = []
        for name in opened.getbands()[:-1]:
            band = opened.getchannel(name)
            band.thumbnail((LONGEST_PX, LONGEST_PX))
            bands.append(band)
        small = Image.merge("RGB" if len(bands) == 3 else "L", bands)
        small.info.update(opened.info)
        return small


def _unseen(got: str, do: str) -> BadInput:
    return BadInput(Fault("photo", got, "a JPEG, PNG or WebP picture", do))


@transaction.atomic
def keep_photo(id: UUID, given: bytes, maker: Maker) -> PiecePhoto:
    """Keep a photograph of a piece's wood, in the place of the one before."""
    row = get_row(id, maker)
    image, width, height = plain_jpeg(given)
    kept, _ = PiecePhoto.objects.update_or_create(
        piece=row, defaults={"image": image, "width": width, "height": height, "by": named(maker)}
    )
    return kept


def photo_of(id: UUID, maker: Maker) -> PiecePhoto:
    """A piece's photograph; Http404 where there is none."""
    kept = PiecePhoto.objects.filter(piece=get_row(id, maker)).first()
    if kept is None:
        raise Http404
    return kept


def drop_photo(id: UUID, maker: Maker) -> None:
    """Take a piece's photograph away."""
    PiecePhoto.objects.filter(piece=get_row(id, maker)).delete()
