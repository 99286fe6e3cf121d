"""Every kind of work there is in a build, once: its place in the order, its time, wait and caution.

All times, waits and cautions are common practice with no published source; a maker's own times replace
them as soon as there are any. Cautions defer to the tool's manual, local rules and a competent teacher.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Of = Literal["piece", "legs", "parts"]
"""What one unit of an operation is: the whole piece, a leg, or a squared part or stretcher."""


@dataclass(frozen=True)
class Operation:
    """One kind of work. `called` is what hours are summed under; `minutes` are the usual ones for each
    unit, `setting` those to set up once; `waits` how long the work then rests, hours from and to, and
    `for_what`; `caution` what can hurt, `lay_out` what is wanted at hand beside the card's own tool."""

    name: str
    called: str
    of: Of
    minutes: float
    setting: float = 0.0
    waits: tuple[float, float] | None = None
    for_what: str = ""
    caution: str = ""
    lay_out: tuple[str, ...] = ()


MANUAL = "Follow the tool's manual and the rules where you are; what is new to you, first with a teacher."
_BLADES = (
    "Guards on, hands well away from the blade, small parts held by a jig and never by hand. " + MANUAL
)
_BITS = "Clamp the work: a large flat-bottomed bit grabs. " + MANUAL
_EDGES = "Cut away from your body and from the hand that holds the work; clamp what can be clamped."
_DUST = "Wear a mask, and eye protection where chips fly."
_RAGS = (
    "Rags wet with oil can catch fire by themselves: lay them out flat outdoors to dry, or under water in "
    "a tin with a lid. Air the room. Read the tin."
)

_ALL = (
    Operation("ready", "readying the wood", "piece", 90, caution=_BLADES),
    Operation("hollow_strips", "hollowing", "piece", 90, caution=_BLADES + " " + _DUST),
    Operation(
        "glue_boards", "gluing boards", "piece", 40, waits=(12, 24), for_what="the glue to harden",
        lay_out=("clamps, one every 20 to 30 cm", "glue and a brush", "a straight-edge"),
    ),
    Operation(
        "practice", "trying on scrap", "piece", 30, caution=_BITS,
        lay_out=("a piece of scrap as thick as the seat", "a practice leg or an offcut of leg stock"),
    ),
    Operation("lay_out", "marking out", "piece", 30, lay_out=("rule, square, compasses", "a sharp pencil")),
    Operation("bore", "boring the seat", "legs", 5, setting=15, caution=_BITS),
    Operation("ease_mouth", "easing mouths", "legs", 8, setting=5, caution=_BITS),
    Operation("dress", "planing to thickness", "piece", 40, caution=_BLADES + " " + _DUST),
    Operation(
        "lay_out_upper", "marking out", "piece", 15, lay_out=("rule, square, compasses", "a sharp pencil")
    ),
    Operation("peg_find", "finding pegs' places", "legs", 6, caution=_BITS),
    Operation("hand_hold", "boring a hand-hold", "piece", 20, setting=10, caution=_BITS),
    Operation("cut_outline", "cutting the outline", "piece", 25, caution=_BLADES),
    Operation(
        "hollow", "hollowing", "piece", 120, caution=_EDGES + " " + _DUST,
        lay_out=("a straight-edge to try the depth",),
    ),
    Operation("edges", "shaping edges", "piece", 25, caution=_BLADES + " " + _DUST),
    Operation("stick_cut", "shortening reused sticks", "legs", 5, caution=_BLADES),
    Operation("bend_line", "finding bent sticks' lines", "legs", 8),
    Operation("tenon", "making tenons", "legs", 15, setting=10, caution=_EDGES),
    Operation("shoulder", "sloping shoulders", "legs", 20, caution=_EDGES),
    Operation("taper", "tapering", "legs", 12, caution=_EDGES),
    Operation("octagon", "planing eight sides", "legs", 12, caution=_EDGES),
    Operation("round", "rounding legs", "legs", 12, caution=_EDGES, lay_out=("spokeshave", "calipers")),
    Operation("mark", "marking legs", "legs", 4),
    Operation("pilot", "boring pilots", "legs", 4, setting=5, caution=_BITS),
    Operation(
        "turn_home", "fitting legs on screws", "legs", 6, lay_out=("a spanner or pliers", "a strap", "wax")
    ),
    Operation("kerf", "sawing wedge slots", "legs", 4, caution=_EDGES),
    Operation("foot_cut", "sawing feet", "legs", 4, setting=10, caution=_BLADES),
    Operation("rip", "bevelling edges", "parts", 6, setting=15, caution=_BLADES),
    Operation("crosscut", "cutting to length", "parts", 5, setting=15, caution=_BLADES),
    Operation("notch", "cutting notches", "parts", 12, setting=10, caution=_BLADES),
    Operation("joins", "marking joints", "parts", 3, lay_out=("rule, square, marking knife",)),
    Operation(
        "glue_sides", "gluing boards", "piece", 30, waits=(12, 24), for_what="the glue to harden",
        lay_out=("clamps, one every 20 to 30 cm", "glue and a brush", "a straight-edge"),
    ),
    Operation("spline_mortise", "mortising the top", "piece", 60, setting=10, caution=_EDGES),
    Operation("spline_notch", "cutting notches", "parts", 12, setting=10, caution=_EDGES),
    Operation("splines", "making splines", "piece", 20, caution=_BLADES),
    Operation(
        "spline_in", "driving splines", "piece", 20, waits=(1, 24), for_what="the glue to set",
        caution="Eye protection on.", lay_out=("the splines, their lower edges eased", "a hammer, glue"),
    ),
    Operation("tread_edges", "shaping edges", "piece", 15, caution=_BLADES + " " + _DUST),
    Operation("cut_out", "cutting notches", "parts", 15, setting=10, caution=_BLADES),
    Operation("dowel", "boring for dowels", "parts", 8, setting=15, caution=_BITS),
    Operation("through", "boring through for dowels", "parts", 8, setting=10, caution=_BITS),
    Operation("onward", "boring on from outside", "parts", 8, setting=5, caution=_BITS),
    Operation("outside", "boring from outside", "parts", 8, setting=10, caution=_BITS),
    Operation("slot", "slotting for loose tenons", "parts", 8, setting=20, caution=_BLADES + " " + _DUST),
    Operation("stick_tenon", "tenons on squared parts", "parts", 20, setting=10, caution=_EDGES),
    Operation("hold", "boring for the top's screws", "parts", 6, setting=10, caution=_BITS),
    Operation("groove", "grooving", "parts", 6, setting=15, caution=_BLADES + " " + _DUST),
    Operation("buttons", "making buttons", "parts", 8, setting=10, caution=_BLADES),
    Operation("side_taper", "tapering", "parts", 10, setting=15, caution=_BLADES),
    Operation("sweep", "sawing arcs", "parts", 15, setting=5, caution=_BLADES),
    Operation("fit", "fitting tenons", "legs", 12, caution=_EDGES),
    Operation("battens", "screwing on battens", "piece", 20),
    Operation("dry_fit", "fitting dry", "piece", 25, lay_out=("a flat surface", "bevel gauge and rule")),
    Operation("bore_member", "boring for stretchers", "legs", 10, setting=10, caution=_BITS),
    Operation("bore_rope", "boring for rope", "legs", 5, setting=5, caution=_BITS),
    Operation("member_cut", "making stretchers", "parts", 25, caution=_BLADES),
    Operation("member_octagon", "planing eight sides", "parts", 12, caution=_EDGES),
    Operation("floor_side", "marking stretchers", "parts", 3),
    Operation("wedges", "making wedges", "legs", 4, caution="Too small for a machine. " + _EDGES),
    Operation("ease", "sanding and easing", "piece", 90, caution=_DUST),
    Operation(
        "prefinish", "finish before assembly", "piece", 30, waits=(8, 24), for_what="the coat to dry",
        caution=_RAGS, lay_out=("tape for tenons and sockets",),
    ),
    Operation("dry_run", "rehearsing the glue-up", "piece", 20),
    Operation(
        "glue", "gluing up", "piece", 20, waits=(1, 24), for_what="the glue to set",
        lay_out=("glue and a brush", "clamps and blocks", "two straight sticks", "a damp rag"),
    ),
    Operation(
        "wedge", "wedging", "legs", 3, waits=(0.5, 24), for_what="the glue to hold",
        lay_out=("the wedges", "a hammer"), caution="Eye protection on: a wedge can split and fly.",
    ),
    Operation("peg", "boring for pegs", "legs", 4, setting=10, caution=_BITS),
    Operation("peg_in", "driving pegs", "legs", 3, caution="Eye protection on."),
    Operation(
        "outside_in", "driving dowels", "parts", 3, caution="Eye protection on.",
        lay_out=("the dowels, a groove down each for air", "glue, a hammer and a flush saw"),
    ),
    Operation(
        "trim_flush", "trimming tenons", "legs", 6, caution=_EDGES,
        lay_out=("a flush saw", "what keeps it off the face"),
    ),
    Operation("ease_proud", "trimming tenons", "legs", 3, caution=_EDGES),
    Operation("level", "levelling", "piece", 45, caution=_EDGES, lay_out=("the flattest surface",)),
    Operation("ease_feet", "easing feet", "piece", 10),
    Operation(
        "hold_top", "holding the top", "piece", 25, caution=_BITS,
        lay_out=("the screws", "a bit for their pilots, and a stop on it"),
    ),
    Operation(
        "underfoot", "feet", "piece", 15, caution=_BITS,
        lay_out=("what goes under the feet", "a small bit, and a stop on it"),
    ),
    Operation("finish", "finishing", "piece", 40, waits=(8, 24), for_what="the coat to dry", caution=_RAGS),
    Operation("rope_in", "tying the rope", "piece", 15),
    Operation("write_down", "writing down", "piece", 10),
    Operation("own", "own steps", "piece", 15),
)  # fmt: skip
OPERATIONS: dict[str, Operation] = {one.name: one for one in _ALL}
"""The operations by name, in the order they usually come."""
RANK: dict[str, int] = {one.name: rank for rank, one in enumerate(_ALL)}
