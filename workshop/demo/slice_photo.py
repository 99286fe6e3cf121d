"""An invented photograph of the demo's log slice, drawn by code: bark, rings, a check, a rule beside it."""

from __future__ import annotations

import io
import math
import random

from PIL import Image, ImageDraw, ImageFilter

Corners = list[tuple[float, float]]
PX_PER_MM = 2.0
SPAN_MM = 460.0
"""What the photograph shows from side to side, mm."""


def slice_photo(corners: Corners, seed: int = 7) -> bytes:
    """A JPEG of a slice with that edge (mm about its middle, y to the back), lying on a grey floor."""
    rng = random.Random(seed)
    size = round(SPAN_MM * PX_PER_MM)
    image = Image.new("RGB", (size, size), (126, 124, 118))
    draw = ImageDraw.Draw(image)
    for k in range(0, size, 46):
        shade = 112 + rng.randrange(14)
        draw.line((0, k, size, k + rng.randrange(6)), fill=(shade, shade - 2, shade - 8), width=2)
    edge = _rough(corners, rng)
    draw.polygon(_on(edge, 1.0, size), fill=(74, 56, 42))
    draw.polygon(_on(edge, 0.955, size), fill=(206, 174, 130))
    share = 0.945
    while share > 0.05:
        tone = rng.randrange(-9, 10)
        ring = _on(edge, share, size)
        line = (168 + tone, 128 + tone, 86 + tone)
        draw.line([*ring, ring[0]], fill=line, width=rng.choice((1, 1, 2)))
        share -= rng.uniform(0.012, 0.026)
    heart = size / 2
    draw.line((heart, heart, heart + 0.33 * size, heart + 0.06 * size), fill=(96, 68, 46), width=3)
    _rule(draw, size)
    made = io.BytesIO()
    image.filter(ImageFilter.GaussianBlur(0.8)).save(made, "JPEG", quality=84)
    return made.getvalue()


def _rough(corners: Corners, rng: random.Random) -> Corners:
    """The edge through the corners, closely followed and a little rough, as (bearing, distance)."""
    known = sorted((math.atan2(y, x) % math.tau, math.hypot(x, y)) for x, y in corners)
    known = [(known[-1][0] - math.tau, known[-1][1]), *known, (known[0][0] + math.tau, known[0][1])]
    made = []
    for k in range(240):
        turn = math.tau * k / 240
        at = next(i for i in range(1, len(known)) if known[i][0] >= turn)
        (a, near), (b, far) = known[at - 1], known[at]
        share = (1.0 - math.cos(math.pi * (turn - a) / (b - a))) / 2.0
        made.append((turn, near + (far - near) * share + rng.gauss(0.0, 0.9)))
    return made


def _on(edge: Corners, share: float, size: int) -> list[tuple[float, float]]:
    """The edge shrunk to a share of itself, in pixels, y down."""
    half = size / 2
    return [
        (half + PX_PER_MM * r * share * math.cos(t), half - PX_PER_MM * r * share * math.sin(t))
        for t, r in edge
    ]


def _rule(draw: ImageDraw.ImageDraw, size: int) -> None:
    """A steel rule along the lower edge, a mark each 10 mm."""
    top = size - 44
    draw.rectangle((30, top, 30 + 400 * PX_PER_MM, top + 26), fill=(198, 200, 202))
    for k in range(41):
        x = 30 + k * 10 * PX_PER_MM
        draw.line((x, top, x, top + (16 if k % 5 == 0 else 9)), fill=(40, 40, 42), width=1)
