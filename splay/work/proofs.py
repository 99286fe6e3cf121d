"""Every kind of proof there is, once: what is read, with what, where it is asked, what follows it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Measures = Literal["angle", "length"]
Instrument = Literal["angle_gauge", "caliper", "height_gauge", "moisture_meter", "hygrometer"]
Station = Literal["top", "boring", "legs", "stretchers", "level"]
Scale = Literal["proving", "sticks", "sawn"]


@dataclass(frozen=True)
class ProofKind:
    """One kind of proof.

    `least` is the smallest reading there can be, mm, or degrees off square; `nought` whether 0 is one;
    `most` the largest, the same units; `dry` says that the parts are put together dry for it. `scale` is
    what an angle is read on. `follows` says what is worked out anew from such a reading. `named` is what is
    measured, in a word.
    """

    name: str
    measures: Measures
    named: str
    station: Station | None = None
    instrument: Instrument = "caliper"
    least: float = 0.0
    nought: bool = False
    most: float = 6000.0
    dry: bool = False
    scale: Scale = "proving"
    follows: str = ""


def _angle(name: str, named: str, station: Station | None = None, **more: object) -> ProofKind:
    given: dict[str, object] = {"nought": True, "most": 90.0, "instrument": "angle_gauge", **more}
    return ProofKind(name, "angle", named, station, **given)  # type: ignore[arg-type]


def _length(name: str, named: str, station: Station | None = None, **more: object) -> ProofKind:
    return ProofKind(name, "length", named, station, **more)  # type: ignore[arg-type]


def _height(name: str, named: str, **more: object) -> ProofKind:
    given: dict[str, object] = {"instrument": "height_gauge", "follows": "the cut of every foot", **more}
    return ProofKind(name, "length", named, "level", **given)  # type: ignore[arg-type]


_ALL = (
    _length("mark", "length", "top"),
    _angle("bore", "angle", "boring", most=75.0, follows="the leg's length, its foot, what runs to it"),
    _length("peg", "length", "boring"),
    _length("mouth", "length", "boring"),
    _length("foot", "length", "legs", follows="how the foot ends before levelling"),
    _angle("cut", "angle", scale="sawn"),
    _angle("bevel", "angle", scale="sawn"),
    _length("long", "length", follows="how the foot ends before levelling"),
    _length("shoulders", "length"),
    _length("tenon", "length", "legs"),
    _length("shoulder", "length", "legs"),
    _angle("topcut", "angle", "legs", scale="sawn"),
    _length("pilot", "length", "legs"),
    _length("octagon", "length"),
    # Of legs, at their finished foot; "octagon" was read where they were as thick as their stock.
    _length("facet", "length", "legs"),
    _length("taper", "length", "legs"),
    _length("bent", "length", "legs"),
    _length("kerf", "length", "legs"),
    _length("wedge", "length", "legs"),
    _angle("rip", "angle", scale="sawn"),
    _length("notch", "length"),
    _length("slot", "length"),
    _length("hand_hold", "length", "top"),
    _length("joins", "length", "stretchers"),
    _length("hollow", "length", "top"),
    _length("dressed", "length", "top"),
    _length("spline_notch", "length", "legs"),
    _length("spline_mortise", "length", "top"),
    _length("groove", "length", "stretchers", follows="the buttons' step"),
    _length("button", "length", "stretchers"),
    _length("outside", "length", "legs"),
    _length("through", "length", "stretchers"),
    _length("side_taper", "length", "legs"),
    _length("held", "length", "stretchers"),
    _length("sweep", "length", "stretchers"),
    # The obtuse side may be read by mistake: that is told apart later, with its reason.
    _angle(
        "read", "angle", "stretchers", least=-90.0, dry=True, scale="sticks", follows="the socket's angle"
    ),
    _length("gap", "length", "stretchers", dry=True, follows="the stretcher's length"),
    _length("depth", "length", "stretchers", dry=True, follows="the stretcher's length"),
    _length("rail", "length", "stretchers"),
    _height("bench", "height"),
    _height("along", "length"),
    _height("sight", "packing", least=-200.0, nought=True, most=200.0),
    _height("shim", "shim", nought=True),
    _height("stands", "height"),
    _height("top", "height"),
    _height("under", "gap", nought=True),
)
KINDS: dict[str, ProofKind] = {kind.name: kind for kind in _ALL}
"""The kinds by name; a proof without a station is asked where the part it is taken on is made."""


def proof_id(kind: str, *of: str) -> str:
    """The id of a proof: its kind, then the ids of what it is taken on. It is told apart, never read."""
    return ".".join((KINDS[kind].name, *of))
