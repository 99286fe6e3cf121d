"""Why one kind of work stands before another, and what it costs where it does not.

All of these are facts of the trade, handed on by makers who paid for them: common practice, no published
source. What marks lean on which, and which readings later figures follow, is not listed here: that follows
from the cards themselves.
"""

from __future__ import annotations

from dataclasses import dataclass

Names = frozenset[str]


@dataclass(frozen=True)
class Rule:
    """Work in `before` stands before work in `after`; `same` only where both are done on one part."""

    before: Names
    after: Names
    why: str
    costs: str
    same: bool = False


def _of(names: str) -> Names:
    return frozenset(names.split())


SHAPING = _of("cut_outline hollow edges")
SEAT = _of(
    "lay_out lay_out_upper dress bore ease_mouth peg_find hand_hold spline_mortise cut_outline hollow edges"
)
LEGS = _of("stick_cut bend_line tenon shoulder octagon taper mark pilot top_cut kerf foot_cut")
STICKS = _of(
    "rip crosscut notch dowel slot stick_tenon side_taper hold groove joins cut_out spline_notch sweep"
)
STRETCHERS = _of("bore_member bore_rope member_cut member_octagon floor_side")
MADE = SEAT | LEGS | STICKS | STRETCHERS
ON_PARTS = (LEGS | STICKS | STRETCHERS | {"fit"}) - {"joins"}
"""Work on a leg or another part itself: not what is drawn on one part for another that joins it there."""
GLUED = _of("glue wedge peg_in")
READ = (
    "read before stretchers are bored and cut: legs stand where their holes put them",
    "stretchers are cut from the plan, and each degree a hole is off shows as a gap",
)
CARRIED = (
    "what carries another stretcher is in its place before that one is read",
    "it is read from the plan, and each gap of the carrying one adds to it",
)
SOCKETS = (
    "the depth of the sockets goes into the stretcher's length",
    "it is cut for sockets as planned: too long, it holds the legs apart",
)
"""Between one stretcher and what carries it: why, and what it costs."""

RULES = (
    Rule(
        _of("ready"),
        MADE | _of("hollow_strips glue_boards practice"),
        "wood is flattened and dry before it is measured from",
        "a blank that moves afterwards takes every mark and angle along",
    ),
    Rule(
        _of("glue_boards"),
        SEAT,
        "the seat is one piece before it is marked out",
        "a seam planed flush afterwards takes the marks off and thins the seat",
    ),
    Rule(
        _of("hollow_strips"),
        _of("glue_boards"),
        "each strip is sawn by itself, before it is part of a whole",
        "the glued seat is hollowed whole, by scorp or router",
    ),
    Rule(
        _of("practice"),
        _of("bore tenon shoulder"),
        "a joint that is new is tried on scrap first",
        "the first hole is then the practice, in the seat",
    ),
    Rule(
        _of("lay_out"),
        SHAPING,
        "lay out before anything is rounded or hollowed: rule and square work from straight edges and "
        "whole faces",
        "the middle lines must be found again from a curved edge",
    ),
    Rule(
        _of("lay_out"),
        _of("bore peg hand_hold spline_mortise"),
        "the holes are bored on its marks",
        "nothing says where a hole goes or which way it leans",
    ),
    Rule(
        _of("bore hand_hold spline_mortise"),
        SHAPING,
        "bore while the edges are straight and the faces flat: the blank lies against a fence and clamps",
        "a rounded or hollowed seat wants a cradle or a centre pin to be held at the angle",
    ),
    Rule(
        _of("bore"),
        _of("ease_mouth"),
        "the cutter's pilot runs in the hole",
        "there is nothing to ease",
    ),
    Rule(
        _of("ease_mouth"),
        _of("fit dry_fit glue"),
        "the leg's cove lies in the eased mouth",
        "the cove lifts the leg out of its place",
    ),
    Rule(
        _of("bore"),
        _of("dress"),
        "the holes are bored while there is wood to spare over them",
        "the bit breaks out of the face that shows",
    ),
    Rule(
        _of("dress"),
        _of("lay_out_upper peg_find hand_hold spline_mortise hollow edges crosscut fit"),
        "the upper face is where it will be",
        "what is drawn or cut there goes with the shavings, or lies elsewhere afterwards",
    ),
    Rule(
        _of("lay_out_upper"),
        _of("peg hand_hold spline_mortise hollow edges"),
        "it is done on the marks of the upper face",
        "nothing says where it goes",
    ),
    Rule(
        _of("bore lay_out_upper"),
        _of("peg_find"),
        "the thin bit goes on from the socket's own middle",
        "there is nothing to find it through",
    ),
    Rule(
        _of("peg_find"),
        _of("fit dry_fit glue"),
        "it is found before the leg goes in",
        "the leg is in the way of the bit",
    ),
    Rule(
        _of("cut_outline"),
        _of("edges"),
        "an edge is shaped once it is there",
        "the shaped edge is sawn off",
    ),
    Rule(
        _of("stick_cut"),
        _of("tenon shoulder octagon taper mark pilot top_cut kerf foot_cut"),
        "everything on a leg is measured from the end that this leaves",
        "sawn later, tenon and marks go with what comes off",
        same=True,
    ),
    Rule(
        _of("stick_cut"),
        _of("bend_line"),
        "the string goes to the end that is left",
        "its line is another one when the end has moved",
        same=True,
    ),
    Rule(
        _of("bend_line"),
        _of("tenon shoulder mark pilot top_cut kerf foot_cut"),
        "a bent leg is worked about its own line",
        "the tenon follows the wood, and the foot comes elsewhere",
        same=True,
    ),
    Rule(
        _of("tenon shoulder"),
        _of("octagon taper"),
        "tenon while the stock is square and thick: it is held and centred by its faces",
        "a tapered or eight-sided stick must be packed to be held true",
        same=True,
    ),
    Rule(
        _of("member_cut"),
        _of("member_octagon"),
        "tenon while the stock is square and thick: it is held and centred by its faces",
        "an eight-sided stick must be packed to be held true",
        same=True,
    ),
    Rule(
        _of("member_octagon"),
        _of("floor_side"),
        "its faces are named when all of them are there",
        "the plane takes the names off again",
        same=True,
    ),
    Rule(
        _of("octagon"),
        _of("taper"),
        "eight even sides are gauged from square stock of one size",
        "the gauge must be set anew along the taper",
        same=True,
    ),
    Rule(
        _of("rip crosscut notch dowel slot stick_tenon hold groove joins spline_notch"),
        _of("side_taper"),
        "joints before tapers: a leg is held, sawn and marked from sides that run straight",
        "fence, table and gauge no longer lie along the leg, and its joints are cut askew",
        same=True,
    ),
    Rule(
        _of("rip crosscut notch dowel slot hold groove joins"),
        _of("sweep"),
        "joints before arcs: a piece is sawn, held and marked from edges that run straight",
        "neither fence nor clamp finds an edge, and the end is bored askew",
        same=True,
    ),
    Rule(
        _of("stick_tenon dowel slot side_taper hold groove joins sweep"),
        _of("ease"),
        "joints are cut from true faces",
        "a sanded face is no longer true, and the joint is cut to it",
        same=True,
    ),
    Rule(
        _of("crosscut"),
        _of("joins"),
        "where parts join is measured from sawn ends",
        "the line moves with the end that is sawn later",
        same=True,
    ),
    Rule(
        _of("crosscut side_taper joins spline_notch"),
        _of("glue_sides"),
        "each board is sawn, marked and tapered by itself: narrow, with straight edges, flat on the saw",
        "two ends at two heights are sawn on one wide side that no saw takes",
    ),
    Rule(
        _of("crosscut"),
        _of("spline_notch"),
        "a notch is measured from the sawn end",
        "its bottom moves with the end that is sawn later",
        same=True,
    ),
    Rule(
        _of("spline_notch spline_mortise"),
        _of("splines"),
        "splines are made to what they slide into",
        "one that is loose in its notch holds nothing",
    ),
    Rule(
        _of("splines glue"),
        _of("spline_in"),
        "the top is splined to sides that stand as they will stand",
        "the mortises no longer lie over the notches",
    ),
    Rule(
        _of("spline_in"),
        _of("level ease_feet finish trim_flush"),
        "driven and sawn flush while the piece may still be knocked about",
        "the hammer moves feet that were level, and the saw mars what is finished",
    ),
    Rule(
        _of("crosscut"),
        _of("tread_edges"),
        "an edge is shaped once its ends are sawn",
        "the saw tears what was shaped",
    ),
    Rule(
        _of("tread_edges"),
        _of("ease hold_top"),
        "a tread is shaped before it is held: behind its boards no cutter comes along it",
        "it is taken off again to be shaped",
    ),
    Rule(
        _of("glue_sides"),
        _of("cut_out"),
        "what is cut out between the feet goes through both boards, across their seam",
        "half a cut-out in each meets askew, and feet that short break off in the clamps",
    ),
    Rule(
        _of("glue_sides"),
        _of("ease dry_run glue"),
        "a side is whole before anything is set between two of them",
        "its seam opens where the clamps of the next joint pull",
    ),
    Rule(
        _of("rip"),
        _of("crosscut"),
        "bevels before lengths: a length is taken along the bevelled corner",
        "the corner it was measured on is planed away",
        same=True,
    ),
    Rule(
        _of("bore tenon shoulder"),
        _of("fit"),
        "each tenon is tried in its own hole",
        "a tenon fitted to no hole fits none",
    ),
    Rule(
        _of("fit"),
        _of("dry_fit kerf"),
        "a tenon goes home by hand before the whole is put together",
        "what binds is found only when everything binds",
    ),
    Rule(
        MADE - SHAPING - STRETCHERS,
        _of("dry_fit"),
        "it is put together dry from finished joints",
        "what is cut afterwards moves what was read",
    ),
    Rule(
        MADE,
        _of("ease"),
        "sand once every joint and mark has served",
        "marks are sanded away before they are used, joints lose their faces",
    ),
    Rule(
        _of("ease"),
        GLUED | _of("prefinish"),
        "sand and ease before assembly: afterwards corners between parts are out of reach",
        "sanding across joints and into corners takes longer and shows",
    ),
    Rule(
        _of("prefinish"),
        GLUED,
        "what will be out of reach is finished before it is",
        "a brush does not come between legs and stretchers as well afterwards",
    ),
    Rule(
        MADE | _of("fit dry_fit wedges splines"),
        GLUED,
        "all parts are there before glue is spread: it does not wait",
        "glue sets while the missing part is made",
    ),
    Rule(
        _of("kerf"),
        _of("wedges"),
        "a wedge is made to its slot",
        "a wedge thicker than its slot opens splits the tenon below the ring",
    ),
    Rule(
        _of("dry_run"),
        GLUED,
        "gone through dry and timed once, nothing is searched for with glue on it",
        "the open time is spent on finding clamps",
    ),
    Rule(
        MADE | _of("fit dry_fit wedges splines ease"),
        _of("dry_run"),
        "it is rehearsed with everything that will be glued",
        "the rehearsal leaves out what goes wrong",
    ),
    Rule(
        _of("glue"),
        _of("wedge peg peg_in trim_flush level rope_in"),
        "wedges, pegs and the saw want the tenon where it stays",
        "a tenon wedged short of home cannot be driven any more",
    ),
    Rule(
        _of("wedge peg_in"),
        _of("trim_flush level"),
        "wedges and pegs pull a leg the last hair home",
        "what was sawn flush or level stands proud again",
    ),
    Rule(
        _of("peg"),
        _of("peg_in"),
        "a peg is driven into its hole",
        "there is nothing to drive it into",
    ),
    Rule(
        _of("glue"),
        _of("outside"),
        "dowels from outside are bored when the mitre holds: each hole goes through both parts at once",
        "the two halves of a hole no longer meet once the mitre is closed",
    ),
    Rule(
        _of("outside"),
        _of("outside_in"),
        "a dowel is driven into its hole",
        "there is nothing to drive it into",
    ),
    Rule(
        _of("peg outside outside_in"),
        _of("level ease_feet finish trim_flush"),
        "drilled, driven and sawn flush while the piece may still be knocked about",
        "the drill and the hammer move feet that were level, and mar what is finished",
    ),
    Rule(
        GLUED,
        _of("level"),
        "level what stands as it will stand",
        "glue and wedges move the feet after they were cut",
    ),
    Rule(
        _of("level"),
        _of("ease_feet finish write_down"),
        "feet are eased and finished once they are cut",
        "finish on what is sawn off is wasted, and the new end is bare",
    ),
    Rule(
        _of("trim_flush ease_feet"),
        _of("finish"),
        "never finish what will be cut off",
        "the coat goes into the bin with the offcut, and the cut stays bare",
    ),
    Rule(
        GLUED | _of("level finish"),
        _of("hold_top"),
        "the top is screwed to what stands as it will stand, its underside finished",
        "its bare underside moves more than its face, and the screws are drawn again to finish it",
    ),
    Rule(
        _of("groove"),
        _of("buttons"),
        "buttons are made to the groove as it lies",
        "a step that does not fit its groove draws nothing, or splits it",
    ),
    Rule(
        _of("buttons"),
        _of("hold_top"),
        "the top is held by buttons that are there",
        "the top lies loose until they are made",
    ),
    Rule(
        _of("level ease_feet finish"),
        _of("underfoot"),
        "feet are put on what is sawn, eased and finished",
        "end grain under them stays bare and takes up water",
    ),
    Rule(
        _of("finish"),
        _of("rope_in"),
        "rope is tied on finished legs",
        "it soaks up the finish and stiffens",
    ),
    Rule(
        MADE
        | GLUED
        | _of("outside outside_in spline_in buttons finish trim_flush ease_feet rope_in hold_top")
        | _of("underfoot"),
        _of("write_down"),
        "it is written down when all of it is known",
        "what was learned last is missing",
    ),
)  # fmt: skip
