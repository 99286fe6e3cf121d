"""The photograph of a slab or a slice, kept beside its piece to be drawn over."""

from __future__ import annotations

import io
from uuid import UUID

from django.db import transaction
from django.http import Http404
from PIL import Image, ImageOps, UnidentifiedImageError

from splay.errors import BadInput, Fault
from workshop.pieces.actions import get_row
from workshop.pieces.models import PiecePhoto

LONGEST_PX = 1600
"""More than this is of no use under a drawing."""
MOST_PIXELS = 60_000_000
_KINDS = ("JPEG", "PNG", "WEBP")
_QUALITY = 82
_BROKEN = (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError)


def plain_jpeg(given: bytes) -> tuple[bytes, int, int]:
    """A picture upright, small enough and without what a camera wrote into it (its place among that).

    The JPEG, its width and its height in pixels; BadInput where it cannot be seen.
    """
    try:
        with Image.open(io.BytesIO(given), formats=_KINDS) as opened:
            size = opened.size
            fits = size[0] * size[1] <= MOST_PIXELS
            upright = ImageOps.exif_transpose(opened).convert("RGB") if fits else None
    except _BROKEN:
        raise _unseen("what is no picture", "Choose a photograph, or save it as one of these.") from None
    if upright is None:
        raise _unseen(f"{size[0]} by {size[1]} pixels", "Make it smaller first.")
    upright.thumbnail((LONGEST_PX, LONGEST_PX))
    made = io.BytesIO()
    upright.save(made, "JPEG", quality=_QUALITY)
    return made.getvalue(), upright.width, upright.height


def _unseen(got: str, do: str) -> BadInput:
    return BadInput(Fault("photo", got, "a JPEG, PNG or WebP picture", do))


@transaction.atomic
def keep_photo(id: UUID, given: bytes) -> PiecePhoto:
    """Keep a photograph of a piece's wood, in the place of the one before."""
    row = get_row(id)
    image, width, height = plain_jpeg(given)
    kept, _ = PiecePhoto.objects.update_or_create(
        piece=row, defaults={"image": image, "width": width, "height": height}
    )
    return kept


def photo_of(id: UUID) -> PiecePhoto:
    """A piece's photograph; Http404 where there is none."""
    kept = PiecePhoto.objects.filter(piece=get_row(id)).first()
    if kept is None:
        raise Http404
    return kept


def drop_photo(id: UUID) -> None:
    """Take a piece's photograph away."""
    PiecePhoto.objects.filter(piece=get_row(id)).delete()
