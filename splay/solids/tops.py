"""A piece's top as a closed solid; top frame, mm."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
from manifold3d import CrossSection, Manifold, triangulate
from numpy.typing import NDArray

from splay.piece import Piece, Trough
from splay.solids.shapes import EDGE_STEPS, FAR_MM, ROUND, SEAM_MM, stacked
from splay.stance.gapped import slit
from splay.stance.hand_hold import slot
from splay.stance.hollow import arc_radius
from splay.stance.outline import extent
from splay.views.edges import rings_of


def top_solid(piece: Piece) -> Manifold:
    """The top with its shaped edges, mitres, hollow and hand-holds, no other holes yet; top frame."""
    top = piece.top
    rings = [ring.astype(float) for ring in rings_of(piece, EDGE_STEPS)]
    base = CrossSection([[(float(x), float(y)) for x, y, _ in rings[0]]])
    straight = len(rings) == 2 and bool(np.allclose(rings[0][:, :2], rings[1][:, :2]))
    solid = base.extrude(top.thickness) if straight else _lofted(rings)
    for one in top.hand_holds:
        flat = CrossSection([[(float(x), float(y)) for x, y in slot(one).exterior.coords[:-1]]])
        solid -= flat.extrude(top.thickness + 2.0 * SEAM_MM).translate((0.0, 0.0, -SEAM_MM))
    opened = slit(top)
    if opened is not None:
        size = (4.0 * sum(extent(top.outline)), opened[1] - opened[0], 3.0 * top.thickness)
        cut = Manifold.cube(size, True).translate((0.0, sum(opened) / 2.0, 0.0))
        solid -= cut.rotate((0.0, 0.0, top.grain))
    if top.hollow is None:
        return solid
    return solid - hollow_cutter(piece)


def _lofted(rings: Sequence[NDArray[np.float64]]) -> Manifold:
    """Level rings one above the other, anticlockwise from above, closed at both ends."""
    return stacked(rings, _filled(rings[0]), _filled(rings[-1]), "top's outline")


def _filled(ring: NDArray[np.float64]) -> list[tuple[int, int, int]]:
    """Triangles over a flat ring, by the places of its points."""
    found = triangulate([np.ascontiguousarray(ring[:, :2])])
    return [(int(a), int(b), int(c)) for a, b, c in found]


def hollow_cutter(piece: Piece) -> Manifold:
    """What is taken out of the upper face; top frame."""
    hollow, t = piece.top.hollow, piece.top.thickness
    assert hollow is not None
    chord = hollow.chord if isinstance(hollow, Trough) else hollow.length
    radius = arc_radius(chord, hollow.depth)
    half = chord / 2.0
    runs = [half * k / 96 for k in range(97)]
    arc = [(x, math.sqrt(max(0.0, radius * radius - x * x))) for x in runs]
    deep = [(x, -(y - (radius - hollow.depth))) for x, y in arc]
    if isinstance(hollow, Trough):
        left = [(-x, y) for x, y in reversed(deep[1:])]
        section = CrossSection([[*left, *deep, (half, 10.0), (-half, 10.0)]])
        long = section.extrude(2.0 * FAR_MM).translate((0.0, 0.0, -FAR_MM))
        # Drawn in x and y, run along z: stood up so that y is up, and turned to its way.
        stood = long.rotate((90.0, 0.0, 0.0))
        turned = stood if hollow.across == "length" else stood.rotate((0.0, 0.0, 90.0))
        return turned.translate((0.0, 0.0, t))
    section = CrossSection([[(0.0, 10.0), *deep, (half, 10.0)]])
    return section.revolve(ROUND).scale((1.0, hollow.width / hollow.length, 1.0)).translate((0.0, 0.0, t))
