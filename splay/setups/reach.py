"""Whether some owned tool might not get to what is asked of it: told at once, before any card is made.

Each answers True where a card could be past its tool's reach and False only where none can be: what keeps
every tool well within its scale needs no card to be judged by.
"""

from __future__ import annotations

from splay.quantity import degrees as deg
from splay.setups.drills import HAND_HELD, boring_tools
from splay.setups.made import Made
from splay.setups.saws import SAWS
from splay.shop import BandSaw, RouterTable, TableSaw, Tool
from splay.stance.staked import support_of
from splay.stance.taper import thickest


def _far(tool: Tool) -> float:
    """How far off square a drill, a guide or a gauge can be set, degrees."""
    scale = getattr(tool, "scale", None)
    return float(scale.reach if scale is not None else getattr(tool, "reach", 0.0))


def boring(made: Made) -> bool:
    """A leg leans further than the shortest scale that bores a seat."""
    least = min((_far(tool) for tool in boring_tools(made.shop, "seat")), default=0.0)
    return any(leg.boring.resultant > least for leg in made.planned.legs)


def pegs(made: Made) -> bool:
    """A peg slopes more than the shortest scale that is held by hand."""
    least = min((_far(tool) for tool in made.shop.owned() if isinstance(tool, HAND_HELD)), default=0.0)
    joints = (one.joint for _, one in made.piece.staked())
    slopes = [joint.pegged.angle for joint in joints if joint.pegged is not None]
    return any(slope > least for slope in slopes)


def feet(made: Made) -> bool:
    """A foot leans more, or a leg is thicker, than some saw takes: neither its swing nor its tilt is ever
    more than the whole lean."""
    for tool in made.shop.owned():
        if not isinstance(tool, SAWS):
            continue
        least = min(tool.scale.reach, tool.tilt.reach)
        room = min(getattr(tool, "widest", 1e9), getattr(tool, "tallest", 1e9))
        for leg in made.real.legs:
            lean = leg.standing.resultant
            if lean > least or thickest(support_of(made.piece, leg).leg) / deg.cos(min(lean, 80.0)) > room:
                return True
    return False


def tenons(made: Made) -> bool:
    """Some tenons are made by what takes only some stock."""
    legs = (one.leg for _, one in made.piece.staked())
    return any(leg.tenon_by in ("cutter", "router") for leg in legs)


def leg_ends(made: Made) -> bool:
    """Upper ends are sawn to the lean."""
    joints = (one.joint for _, one in made.piece.staked())
    return any(joint.tenon in ("none", "flat") for joint in joints)


def hand_holds(made: Made) -> bool:
    """There is a slot to bore."""
    return bool(made.piece.top.hand_holds)


def ends(made: Made) -> bool:
    """An end of a square part is mitred or tilted further, or is larger, than some saw takes."""
    for tool in made.shop.owned():
        if not isinstance(tool, SAWS):
            continue
        wide, high = getattr(tool, "widest", 1e9), getattr(tool, "tallest", 1e9)
        for part in made.sticks:
            width, thick = (size.quantity.value for size in part.stock)
            for end in (part.start, part.finish):
                mitre, tilt = abs(end.mitre), abs(end.tilt)
                if mitre > tool.scale.reach or tilt > tool.tilt.reach or width > wide:
                    return True
                if thick / deg.cos(min(tilt, 80.0)) > high:
                    return True
    return False


def bevels(made: Made) -> bool:
    """A long edge is bevelled further than some blade or table tilts."""
    tilts = [tool.tilt.reach for tool in made.shop.owned() if isinstance(tool, TableSaw | BandSaw)]
    least = min(tilts, default=90.0)
    return any(figure.quantity.value > least for part in made.sticks for figure in part.bevels)


def slots(made: Made) -> bool:
    """Some slots are cut by a router table, whose cutter has one width and one length."""
    routers = [tool for tool in made.shop.owned() if isinstance(tool, RouterTable)]
    joints = [one.dowels for _, one in made.piece.joined() if one.dowels.way == "loose_tenon"]
    return any(tool.cutter != one.size or one.depth > tool.reach for tool in routers for one in joints)


def members(made: Made) -> bool:
    """Something runs between the legs."""
    return bool(made.members or made.ropes)


def never(made: Made) -> bool:
    """Such a card is always within reach."""
    return False
