"""What angles are proved with, and the way between a lean and what its scale shows."""

from __future__ import annotations

from splay.shop import BevelGauge, DigitalGauge, Protractor, Scale, Shop
from splay.work.proofs import ProofKind

_TRUE = Scale(at_square=0, counts="up", reach=90, step=0.1)
_ACUTE = Scale(at_square=90, counts="down", reach=85, step=0.5)


def proving_scale(shop: Shop) -> tuple[str, Scale]:
    """What bored holes are proved with: a digital gauge, else a bevel gauge, else a protractor."""
    for kind in (DigitalGauge, BevelGauge):
        for tool in shop.owned():
            if isinstance(tool, kind):
                return tool.name, tool.scale
    return "protractor, 0 at square", _TRUE


def stick_scale(shop: Shop) -> tuple[str, Scale]:
    """What the angle between two sticks is read with: the shop's protractor, else one that shows 90 at
    square and counts down, so that what is read is the acute angle."""
    for tool in shop.owned():
        if isinstance(tool, Protractor):
            return tool.name, tool.scale
    return "protractor, acute", _ACUTE


def sawn_scale(shop: Shop) -> tuple[str, Scale]:
    """What a sawn line is read with: a bevel gauge laid to it, else a protractor."""
    for tool in shop.owned():
        if isinstance(tool, BevelGauge):
            return tool.name, tool.scale
    return "protractor, 0 at square", _TRUE


def scale_of(kind: ProofKind, shop: Shop) -> tuple[str, Scale]:
    """What an angle of that kind is read with in a shop, and how it reads."""
    read = {"proving": proving_scale, "sticks": stick_scale, "sawn": sawn_scale}
    return read[kind.scale](shop)


def off_square(scale: Scale, shown: float) -> float:
    """The lean off square for what a scale shows: the reverse of `reading`."""
    return (shown - scale.at_square) * (1.0 if scale.counts == "up" else -1.0)
