"""A part of square stock laid out: its face and its edge, with the cut lines and lengths."""

from __future__ import annotations

import shapely

from splay.parts.stick import StickPart, TaperedSide
from splay.stance.body import Body, SideTaper
from splay.stance.convex import Face
from splay.stance.sweep import Sweep
from splay.stance.vectors import Flat
from splay.views.shapes import Shape, View, area, line, text

_ON_MM = 0.01


def stick_view(body: Body, part: StickPart) -> View:
    """The face above, the edge below it, the near end at the left; true to scale, mm."""
    arrises = body.arrises()
    near, far = body.tenons
    spans = {
        key: (a - near, b + far) for key, (a, b) in ((key, body.at(*at)) for key, at in arrises.items())
    }
    low = min(a for a, _ in spans.values())
    high = max(b for _, b in spans.values())
    long, w, t = high - low, body.width, body.thickness
    gap = 0.35 * max(w, t) + 0.03 * long
    shapes: list[Shape] = []
    shapes += _side(body, "face", gap / 2 + w / 2, low)
    shapes += _side(body, "edge", -gap / 2 - t / 2, low)
    step = 0.035 * long + 4.0
    top = gap / 2 + w + step
    first = part.arrises[0]
    a, b = spans[first.across, first.up]
    shapes += _span(a - low, b - low, top, step, first.length.quantity.text, part.key)
    bottom = -gap / 2 - t - step
    shapes += _span(0.0, long, bottom, step, part.overall.quantity.text, part.key)
    shapes += [
        text("label", (0.0, gap / 2 + w + 0.25 * step), body.sides.face, anchor="start"),
        text("label", (0.0, -gap / 2 + 0.2 * step), body.sides.edge, anchor="start"),
        text(
            "dimension",
            (long * 0.5, gap / 2 + w / 2 + (-body.sweep.down * body.sweep.rise / 2 if body.sweep else 0.0)),
            f"{part.stock[0].quantity.text} × {part.stock[1].quantity.text}",
        ),
    ]
    for void in body.voids:
        shapes += _void(body, part, void.name, low, gap)
    if body.sweep is not None:
        shapes += _arc(body, body.sweep, part, low, gap)
    for taper, told in zip(body.tapers, part.tapers, strict=True):
        shapes += _taper(body, taper, told, low, gap)
    box = (-0.04 * long - 6, bottom - 1.2 * step, long * 1.04 + 6, top + 1.4 * step)
    title = f"{part.name[0].upper()}{part.name[1:]}"
    return View(part.key, title, box, tuple(shapes))


def _span(a: float, b: float, level: float, step: float, words: str, part: str) -> list[Shape]:
    return [
        line("dimension", (a, level), (b, level), part=part),
        line("dimension", (a, level - 0.25 * step), (a, level + 0.25 * step)),
        line("dimension", (b, level - 0.25 * step), (b, level + 0.25 * step)),
        text("dimension", ((a + b) / 2, level + 0.3 * step), words),
    ]


def _side(body: Body, which: str, middle: float, low: float) -> list[Shape]:
    """One side seen square on: the outline of the finished part and its sawn ends."""
    faces = []
    toward = (0.0, 0.0, 1.0) if which == "face" else (0.0, 1.0, 0.0)
    for solid in body.pieces:
        for face in solid:
            facing = sum(n * v for n, v in zip(face.normal, toward, strict=True))
            if facing > 1e-6:
                faces.append((facing, face))
    made: list[Shape] = []
    rings: list[tuple[Flat, ...]] = []
    for facing, face in sorted(faces, key=lambda one: one[0]):
        ring: tuple[Flat, ...] = tuple(
            (p[0] - low, middle + (p[1] if which == "face" else -p[2])) for p in face.corners
        )
        rings.append(ring)
        made.append(area("hatch_area" if facing < 0.99 and abs(face.normal[0]) > 0.05 else "leg", ring))
    in_strips = body.grown or body.sweep is not None
    if in_strips:
        # Worked out in pieces, but one side.
        made = [area("leg", ring) for ring in _joined(rings)]
    near = 2 if which == "face" else 1
    for solid in body.pieces:
        for face in solid:
            if abs(face.normal[0]) < 0.3 or (in_strips and not _ends_it(body, face)):
                continue
            # The sawn end as it shows on the side that is seen: its corners nearest to the eye.
            nearest = max(p[near] for p in face.corners)
            seen = [p for p in face.corners if nearest - p[near] < _ON_MM]
            seen = seen if len(seen) > 1 else list(face.corners)
            across = [(p[0] - low, p[1] if which == "face" else -p[2]) for p in seen]
            first = min(across, key=lambda p: p[1])
            last = max(across, key=lambda p: p[1])
            made.append(line("cut", (first[0], middle + first[1]), (last[0], middle + last[1])))
            tenon = body.tenons[1 if face.normal[0] > 0 else 0] * (1.0 if face.normal[0] > 0 else -1.0)
            if tenon:
                # As it is sawn: the end lies so far past the shoulder.
                rim = (first, (first[0] + tenon, first[1]), (last[0] + tenon, last[1]), last)
                made.append(line("hidden", *((x, middle + y) for x, y in rim)))
    return made


def _ends_it(body: Body, face: Face) -> bool:
    """Whether a face is one of the two a stick ends in."""
    return any(
        all(abs(plane.beyond(p)) < _ON_MM for p in face.corners) for plane in (body.start, body.finish)
    )


def _joined(rings: list[tuple[Flat, ...]]) -> list[tuple[Flat, ...]]:
    whole = shapely.union_all([shapely.Polygon(ring).buffer(_ON_MM) for ring in rings])
    return [
        tuple((x, y) for x, y in part.exterior.coords[:-1])
        for part in getattr(whole, "geoms", [whole])
        if isinstance(part, shapely.Polygon)
    ]


def _taper(body: Body, taper: SideTaper, told: TaperedSide, low: float, gap: float) -> list[Shape]:
    """Where a taper begins down its corner, and how far in it ends, beside the side it is seen on."""
    across, up = taper.side
    if across:
        level, out = gap / 2 + body.width * (1.0 if across > 0 else 0.0), 1.0 if across > 0 else -1.0
    else:
        level, out = -gap / 2 - body.thickness * (1.0 if up < 0 else 0.0), -1.0 if up < 0 else 1.0
    step = 0.16 * gap
    words = f"taper, {told.off.quantity.text} in at the {told.to}"
    if taper.after:
        words = f"{told.begins.quantity.text} down: {words}"
    x = taper.begins - low
    return [
        line("pointer", (x, level), (x, level + out * step)),
        # One that begins at the far end is told towards the near one.
        text(
            "pointer",
            (x, level + out * (2.0 if out > 0 else 4.0) * step),
            words,
            anchor="start" if taper.to == "finish" else "end",
        ),
    ]


def _arc(body: Body, sweep: Sweep, part: StickPart, low: float, gap: float) -> list[Shape]:
    """The line its corners make, and how far the arc rises over it."""
    foot = gap / 2 + body.width / 2 + sweep.low
    crown, x = foot - sweep.down * sweep.rise, sweep.middle - low
    rise = part.arc[0].quantity.text
    return [
        line("hidden", (sweep.first - low, foot), (sweep.last - low, foot)),
        line("dimension", (x, foot), (x, crown)),
        text("pointer", (x + 0.1 * gap, (foot + crown) / 2), rise, anchor="start"),
    ]


def _void(body: Body, part: StickPart, name: str, low: float, gap: float) -> list[Shape]:
    # What goes through two boards glued is told of the side that they make.
    if not part.notches or body.glued:
        return []
    words = " × ".join(figure.quantity.text for figure in part.notches[:2])
    x = body.at(0.0, 0.0)[1] - low
    at = (x / 2, gap / 2 + 0.12 * body.width) if "lap" in name else (x * 0.86, gap / 2 + body.width / 2)
    return [text("pointer", at, words)]
