"""Pictures of a stick on a saw: from above with the swing, from the end with the lean."""

from __future__ import annotations

from splay.quantity import degrees as deg
from splay.setups.scenes import StickSawn
from splay.stance.vectors import Flat
from splay.views.scale_arc import scale_arc
from splay.views.shapes import Shape, area, line, text

_HALF = 24.0
_END: Flat = (34.0, 30.0)


def crosscut(scene: StickSawn) -> list[Shape]:
    """From above: fence at the top, the longer edge against it, waste to the right."""
    if scene.lined:
        return _marked(scene)
    t = deg.tan(scene.off)
    x, y = _END
    low = y - 2 * _HALF
    near = x - 2 * _HALF * t
    stick = ((-150.0, low), (near, low), (x, y), (-150.0, y))
    waste = ((near, low), (118.0, low), (118.0, y), (x, y))
    reach = 78.0
    c, s = deg.cos(scene.off), deg.sin(scene.off)
    made = [
        line("tool", (-156, y), (156, y)),
        line("tool", (-156, y + 7), (156, y + 7)),
        area("leg", stick),
        area("waste", waste),
        line("cut", (x + 20 * s, y + 20 * c), (x - reach * s, y - reach * c)),
        line("dimension", (x, y), (x, y - reach - 14)),
        text("label", (-146, y + 12), f"{scene.longer} at the fence", anchor="start"),
        text("label", (-146, low - 12), scene.shorter, anchor="start"),
        text("label", (-76, y - _HALF - 3), scene.face),
    ]
    if scene.arc is not None:
        made += scale_arc(_END, 96, 270.0, -1, scene.arc, scene.off)
    return [*made, *_lean(scene)]


def _lean(scene: StickSawn) -> list[Shape]:
    """From the end of the stick's fence side: the blade leaning through it."""
    tilted = scene.tilted
    if tilted is None:
        return []
    base, high, middle = 84.0, 26.0, 92.0
    t = deg.tan(tilted.off)
    lean = high * t if tilted.up_longer else -high * t
    quad = ((-6.0, base), (middle, base), (middle + lean, base + high), (-6.0, base + high))
    stretch = 0.4
    return [
        line("tool", (-10, base), (150, base)),
        area("leg", quad),
        line(
            "cut",
            (middle - stretch * lean, base - stretch * high),
            (middle + lean * 1.5, base + high * 1.5),
        ),
        line("dimension", (middle, base), (middle, base + high * 1.5)),
        text("pointer", (middle + 10 + max(lean, 0), base + high + 4), tilted.text, anchor="start"),
        text("label", (-12, base + 10), tilted.longer, anchor="end"),
    ]


def _marked(scene: StickSawn) -> list[Shape]:
    """The face with its line, and the edge folded up above it with its own."""
    t = deg.tan(scene.off)
    x, low, high, edge = 20.0, -70.0, 6.0, 66.0
    near = x - (high - low) * t
    made = [
        area("leg", ((-150.0, low), (near, low), (x, high), (-150.0, high))),
        area("waste", ((near, low), (130.0, low), (130.0, high), (x, high))),
        line("cut", (near, low), (x, high)),
        line("dimension", (x, high), (x, low)),
        text("label", (-70, (low + high) / 2), scene.face),
        text("label", (-146, low - 12), scene.shorter, anchor="start"),
        text("pointer", (x + 8, (low + high) / 2 - 6), _words(scene.off), anchor="start"),
    ]
    lean = 0.0
    tilted = scene.tilted
    if tilted is not None:
        u = deg.atan(deg.tan(tilted.off) / deg.cos(scene.off))
        lean = (edge - high) * deg.tan(u) * (-1.0 if tilted.up_longer else 1.0)
    made += [
        area("leg", ((-150.0, high), (x, high), (x + lean, edge), (-150.0, edge))),
        area("waste", ((x, high), (130.0, high), (130.0, edge), (x + lean, edge))),
        line("cut", (x, high), (x + lean, edge)),
        text("label", (-70, (edge + high) / 2 - 3), scene.longer),
    ]
    if tilted is not None:
        made += [
            line("dimension", (x, high), (x, edge)),
            text("pointer", (x + 14 + max(lean, 0), edge - 16), tilted.on_edge, anchor="start"),
        ]
    return made


def _words(off: float) -> str:
    return f"{off:.1f}°"
