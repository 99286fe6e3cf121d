"""Splay, rake, resultant and sightline: four names for one lean, any two give the others.

Relations: tan²rho = tan²s + tan²r; tan a = tan r / tan s (a from the left-right line). They
follow from the direction of a leg, (tan s, tan r, -1), and need no source.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from splay.errors import BadInput, CannotBuild, Fault
from splay.quantity import degrees as deg
from splay.stance.vectors import Vec, unit

NO_LEAN = 1e-9
"""Below this tangent a leg counts as square to the top, and has no sightline."""


@dataclass(frozen=True)
class LeanAngles:
    """One leg's lean against a plane, degrees.

    `splay` and `rake` are signed along +x and +y of that plane's frame; `bearing` is the
    sightline, 0 to 360 from +x towards +y, None when the leg does not lean; `from_side` and
    `from_centre` are the same folded to 0-90 from the x line and from the y line.
    """

    splay: float
    rake: float
    resultant: float
    bearing: float | None
    from_side: float | None
    from_centre: float | None


def direction(splay_deg: float, rake_deg: float) -> Vec:
    """Unit vector from top to floor of a leg leaning by signed splay (+x) and rake (+y)."""
    return unit((deg.tan(splay_deg), deg.tan(rake_deg), -1.0))


def direction_on(resultant_deg: float, bearing_deg: float) -> Vec:
    """Unit vector from top to floor of a leg leaning `resultant_deg` towards a bearing."""
    out = deg.sin(resultant_deg)
    return (out * deg.cos(bearing_deg), out * deg.sin(bearing_deg), -deg.cos(resultant_deg))


def lean_of(d: Vec) -> LeanAngles:
    """The four names of a direction pointing down (z < 0) in some plane's frame."""
    across, back, down = d[0], d[1], -d[2]
    flat = math.hypot(across, back)
    resultant = math.degrees(math.atan2(flat, down))
    splay = math.degrees(math.atan2(across, down))
    rake = math.degrees(math.atan2(back, down))
    if flat <= NO_LEAN * down:
        return LeanAngles(splay, rake, resultant, None, None, None)
    bearing = deg.atan2(back, across)
    folded = deg.fold(bearing)
    return LeanAngles(splay, rake, resultant, bearing, folded, 90.0 - folded)


def solve(
    splay: float | None = None,
    rake: float | None = None,
    resultant: float | None = None,
    from_side: float | None = None,
    from_centre: float | None = None,
) -> LeanAngles:
    """All of a lean from any two of it, degrees, each 0 to under 90.

    BadInput when not exactly two are given or one is out of range; CannotBuild when two
    contradict each other.
    """
    given = {
        "splay": splay,
        "rake": rake,
        "resultant": resultant,
        "sightline": from_side if from_side is not None else from_centre,
    }
    _check(given, from_side is not None and from_centre is not None)
    if from_centre is not None:
        from_side = 90.0 - from_centre
    if splay is not None and rake is not None:
        return lean_of(direction(splay, rake))
    if resultant is not None:
        if from_side is not None:
            return lean_of(direction_on(resultant, from_side))
        part = splay if splay is not None else rake
        assert part is not None
        other = _other(part, resultant)
        return lean_of(direction(part, other) if splay is not None else direction(other, part))
    assert from_side is not None
    return _with_sightline(splay, rake, from_side)


def _check(given: dict[str, float | None], two_sightlines: bool) -> None:
    known = {name: value for name, value in given.items() if value is not None}
    if len(known) != 2 or two_sightlines:
        names = ", ".join(known) or "nothing"
        do = "Give two of splay, rake, resultant and sightline, and leave the others empty."
        raise BadInput(Fault("", names, "exactly two of the four", do))
    for name, value in known.items():
        top = 90.0 if name == "sightline" else 89.0
        if not 0.0 <= value <= top:
            do = "A leg at 90 never reaches the floor." if name != "sightline" else "Fold it to 0-90."
            raise BadInput(Fault(name, f"{value:g}", f"0° to {top:g}°", do))


def _other(part: float, resultant: float) -> float:
    rest = deg.tan(resultant) ** 2 - deg.tan(part) ** 2
    if rest < -1e-12:
        raise CannotBuild(
            f"The true lean of {resultant:g}° is less than one of its own parts, {part:g}°.",
            "The resultant is always the largest of the three: raise it, or lower the other.",
            "resultant",
        )
    return math.degrees(math.atan(math.sqrt(max(0.0, rest))))


def _with_sightline(splay: float | None, rake: float | None, from_side: float) -> LeanAngles:
    part, share, name = (
        (splay, deg.cos(from_side), "splay") if splay is not None else (rake, deg.sin(from_side), "rake")
    )
    assert part is not None
    tangent = deg.tan(part)
    if abs(share) < 1e-9:
        if tangent == 0.0:
            rule = f"With no {name}, a sightline square to it fits any lean."
        else:
            rule = f"A leg leaning along that sightline has no {name} at all."
        raise CannotBuild(rule, "Give the resultant instead.", name)
    return lean_of(direction_on(deg.atan(tangent / share), from_side))
