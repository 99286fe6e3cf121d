"""Bow-tie keys and their pockets at full size."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from splay.patterns.pattern import Pattern, arrow, pattern, ring, words
from splay.quantity import degrees as deg
from splay.timber.keys import Keys, template
from splay.views.shapes import Shape, line


def key_patterns(splits: Sequence[tuple[str, Keys]]) -> Iterator[Pattern]:
    """One template a split that is kept; `splits` names each (the slab it is in)."""
    for k, (name, keys) in enumerate(splits, 1):
        if keys.number:
            yield _key(k, name, keys)


def _key(k: int, name: str, keys: Keys) -> Pattern:
    outline = template(keys)
    # The pocket's walls lean in going down: its floor is smaller by depth · tan slope all round.
    shrink = keys.pocket.value * deg.tan(keys.slope.value)
    scale_x = 1.0 - shrink / (keys.length.value / 2.0)
    scale_y = 1.0 - shrink / (keys.waist.value / 2.0)
    floor = [(x * scale_x, y * scale_y) for x, y in outline]
    half = keys.length.value / 2.0
    shapes: list[Shape] = [
        ring("cut", outline),
        ring("hidden", floor),
        line("sightline", (0.0, -keys.end_width.value), (0.0, keys.end_width.value)),
        *arrow("grain", (-half * 0.6, 0.0), (half * 0.6, 0.0)),
        words((0.0, keys.end_width.value + 3.0), f"{name}: the split under this line"),
    ]
    return pattern(
        f"key.{k}",
        "keys",
        f"Bow-tie key for {name}",
        (
            f"{keys.number} of it, {keys.thickness.text} thick, grain along the arrow. Pocket "
            f"{keys.pocket.text} deep, its walls leaning in {keys.slope.text}; dashed: its floor.",
        ),
        shapes,
    )
