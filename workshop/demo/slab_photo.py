"""An invented photograph of a slab, drawn by code: bark edges, long grain, a split, a rule beside it."""

from __future__ import annotations

import io
import random
from typing import Any

from PIL import Image, ImageDraw, ImageFilter

PX_PER_MM = 0.6
ROOM = 120.0
"""Floor that is seen round the slab, mm."""


def slab_photo(outline: list[tuple[float, float]], seed: int = 5) -> tuple[bytes, dict[str, Any]]:
    """A JPEG of a slab with that edge, and where it lies under it: its width and middle, mm."""
    luck = random.Random(seed)
    xs, ys = [x for x, _ in outline], [y for _, y in outline]
    x0, y1 = min(xs) - ROOM, max(ys) + ROOM
    wide, high = max(xs) - min(xs) + 2 * ROOM, max(ys) - min(ys) + 2 * ROOM
    size = (round(wide * PX_PER_MM), round(high * PX_PER_MM))

    def put(x: float, y: float) -> tuple[float, float]:
        return (x - x0) * PX_PER_MM, (y1 - y) * PX_PER_MM

    image = Image.new("RGB", size, (128, 126, 120))
    mask = Image.new("L", size, 0)
    ImageDraw.Draw(mask).polygon([put(x, y) for x, y in outline], fill=255)
    wood = Image.new("RGB", size, (190, 152, 108))
    draw = ImageDraw.Draw(wood)
    y = min(ys) - 20.0
    while y < max(ys) + 20.0:
        tone = luck.randrange(-16, 12)
        bend = luck.uniform(-14.0, 14.0)
        line = [put(min(xs) + k * wide / 12, y + bend * (k / 12 - 0.4) ** 2) for k in range(13)]
        draw.line(line, fill=(158 + tone, 118 + tone, 78 + tone), width=luck.choice((1, 1, 2)))
        y += luck.uniform(5.0, 13.0)
    draw.line([put(0, 262), put(150, 270), put(305, 281)], fill=(52, 36, 26), width=4)
    knot = put(1490, 74)
    draw.ellipse((knot[0] - 19, knot[1] - 16, knot[0] + 19, knot[1] + 16), fill=(96, 64, 40))
    image.paste(wood, (0, 0), mask)
    edge = ImageDraw.Draw(image)
    edge.line([put(x, y) for x, y in (*outline, outline[0])], fill=(70, 52, 38), width=6)
    for k in range(0, 11):
        a = put(min(xs) + 100.0 * k, min(ys) - 70.0)
        edge.rectangle(
            (*a, a[0] + 100 * PX_PER_MM, a[1] + 9), fill=(236, 226, 190) if k % 2 else (40, 36, 32)
        )
    made = io.BytesIO()
    image.filter(ImageFilter.GaussianBlur(0.7)).save(made, "JPEG", quality=84)
    return made.getvalue(), {"width": wide, "x": x0 + wide / 2.0, "y": y1 - high / 2.0}
