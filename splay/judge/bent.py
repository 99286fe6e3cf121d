"""What can go wrong with a bent stick: a tenon that runs out of its wood, stretchers that miss it."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from splay.judge.finding import Finding
from splay.parts.bent import Bent, met_off_line
from splay.piece import Piece
from splay.quantity import Show
from splay.stance.members import MemberStance
from splay.stance.staked import support_of

TURNED_BY = ("lathe", "router", "cutter")
LEAST_TENON_MM = 14.0
"""A thinner tenon is no way out for a leg (common practice, no source)."""
OFF_MM = 2.0
"""A stretcher that meets a leg this far off its line is told (common practice, no source)."""


def bent(
    piece: Piece, sticks: tuple[Bent, ...], runs: Iterable[MemberStance], show: Show
) -> Iterator[Finding]:
    """Of each bent stick whether its tenon stays in it, and which stretchers find it elsewhere."""
    for one in sticks:
        support = support_of(piece, one.leg)
        thick = one.leg.bore.size if one.leg.bore.tenon else support.joint.socket
        missing = thick / 2.0 + one.aside - support.leg.at_top / 2.0
        if missing > 1e-9:
            yield Finding(
                "bent_thin", "stop", "legs",
                f"Stick {one.trim.index + 1}, for leg {one.leg.number}: within its tenon the wood runs "
                f"{show.closely(one.aside).text} off the string, so the tenon comes "
                f"{show.closely(missing).text} out of the stick.",
                "Take a thicker or a straighter stick for it, or saw more off that end"
                + (
                    f"; or make the socket {show.length(2.0 * missing).text} smaller."
                    if thick - 2.0 * missing >= LEAST_TENON_MM
                    else "."
                ),
                (one.leg.number,), show.closely(missing), show.closely(0.0), None,
                f"supports.{one.trim.support}.leg.sticks.{one.trim.index}.bend",
            )  # fmt: skip
        if support.leg.tenon_by in TURNED_BY:
            yield Finding(
                "bent_turned", "caution", "legs",
                f"Stick {one.trim.index + 1}, for leg {one.leg.number}, is bent, and its tenon is to be "
                "made by what turns the stick, or goes by its wood: it follows the wood, or is thrown.",
                "Make that tenon by hand, by saw and file or by knife, about the string.",
                (one.leg.number,), show.length(one.most[1]), show.length(0.0), None,
                f"supports.{one.trim.support}.leg.tenon_by",
            )  # fmt: skip
    for met in met_off_line(sticks, runs):
        if met.off > OFF_MM:
            yield Finding(
                "bent_stretcher", "caution", "stretchers",
                f"Stretcher {met.member} meets leg {met.leg} where it is bent {show.length(met.off).text} "
                "off its line: its length as planned is out by up to that.",
                "Read its gap dry, as ever, and bore both sockets towards each other in the middle of the "
                "wood that is there.",
                (met.leg,), show.length(met.off), show.length(OFF_MM), None, f"members.{met.member - 1}",
            )  # fmt: skip
