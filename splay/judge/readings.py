"""What readings say: slips, readings unlike this maker's, sides that differ, work cut too soon."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations

from splay.judge.finding import Finding
from splay.parts.member import MemberPart
from splay.quantity import Show
from splay.setups.card import Proof
from splay.setups.member_cards import MEAN_DEG
from splay.work.proofs import KINDS, proof_id

ALIKE_MM = 0.1
OWN_MM = 0.5
"""Two gaps meant to be alike that differ by more are cut each to its own (common practice, no source)."""
WRONG_MM = 6.0
"""And by more than this: something was read wrong (common practice, no source)."""
CUT_MM = 1.0


def slips(proofs: tuple[Proof, ...], show: Show) -> Iterator[Finding]:
    """Readings that a slip explains better than the work, and those far outside the maker's spread."""
    for proof in proofs:
        if proof.answer is None or proof.off is None:
            continue
        legs = (proof.leg,) if proof.leg else ()
        if proof.verdict == "slip":
            yield Finding(
                "read_wrong",
                "caution",
                proof.station,
                f"{proof.what}: {proof.answer.text} was read, {proof.expected.text} expected.",
                f"Likely {proof.slip}. Read it again: until then nothing is cut by it.",
                legs,
                proof.answer,
                proof.expected,
                None,
                f"readings.{proof.id}",
            )
        elif proof.unusual and proof.station != "level":
            assert proof.usual is not None
            yield Finding(
                "unusual",
                "caution",
                proof.station,
                f"{proof.what}: {proof.off.text} off, where your readings lie within {proof.usual.text}.",
                "Read it once more; if it stays, the work is off and what follows is cut to suit.",
                legs,
                proof.off,
                proof.usual,
                None,
                f"readings.{proof.id}",
            )


def resting(kinds: tuple[str, ...], show: Show) -> Iterator[Finding]:
    """Readings, by the kind of their proof, that the piece asks for no more: kept, and said."""
    stations = [KINDS[kind].station or "legs" for kind in kinds if kind in KINDS]
    for station in dict.fromkeys(stations):
        count = stations.count(station)
        yield Finding(
            "readings_rest",
            "note",
            station,
            f"{count} reading{'s rest' if count > 1 else ' rests'}: taken on what is not there any more, "
            "or of what is not asked now.",
            "Nothing to do: kept, and counted again when what it was taken on comes back.",
            (),
            show.count(count),
            None,
            None,
            "",
        )


def sides(members: tuple[MemberPart, ...], show: Show) -> Iterator[Finding]:
    """Stretchers planned alike whose places were found unlike."""
    for a, b in combinations([m for m in members if m.as_built], 2):
        if abs(a.planned_total.quantity.value - b.planned_total.quantity.value) > ALIKE_MM:
            continue
        apart = abs(a.total.quantity.value - b.total.quantity.value)
        if apart <= OWN_MM:
            continue
        wrong = apart > WRONG_MM
        yield Finding(
            "sides_far_apart" if wrong else "sides_differ",
            "caution" if wrong else "note",
            "stretchers",
            f"{a.name[0].upper()}{a.name[1:]} and {b.name} come out {show.fine(apart).text} unlike.",
            "That much is more likely read wrong than bored wrong: measure both again."
            if wrong
            else "Cut each to its own length and number both its ends.",
            tuple(sorted({end.leg for m in (a, b) for end in m.ends if end.leg})),
            show.fine(apart),
            show.fine(WRONG_MM if wrong else OWN_MM),
            None,
            f"members.{b.number - 1}",
        )


def angles(members: tuple[MemberPart, ...], show: Show) -> Iterator[Finding]:
    """Angles planned alike but read too far apart to be bored at their mean."""
    found: dict[float, list[tuple[float, str]]] = {}
    for part in members:
        for end in part.ends:
            if end.found is not None:
                planned = round(end.read.quantity.value, 3)
                found.setdefault(planned, []).append((end.found.value, f"{part.name} at {end.into}"))
    for read in found.values():
        low, high = min(read), max(read)
        if high[0] - low[0] <= MEAN_DEG:
            continue
        yield Finding(
            "angles_apart",
            "caution",
            "stretchers",
            f"Angles meant to be alike were read {show.angle(high[0] - low[0]).text} apart: "
            f"{show.angle(low[0]).text}, {low[1]}; {show.angle(high[0]).text}, {high[1]}.",
            "Read both again, acute side, in the plane of the two; if they stay, bore each at its own.",
            (),
            show.angle(high[0] - low[0]),
            show.angle(MEAN_DEG),
            None,
            "",
        )


def cut_already(
    members: tuple[MemberPart, ...], proofs: tuple[Proof, ...], show: Show
) -> Iterator[Finding]:
    """Stretchers that were cut before what they are cut to was known."""
    cut = {proof.id: proof.answer for proof in proofs if proof.answer is not None}
    for part in members:
        answer = cut.get(proof_id("rail", part.id))
        if answer is None:
            continue
        off = answer.value - part.total.quantity.value
        if abs(off) <= CUT_MM:
            continue
        yield Finding(
            "cut_short" if off < 0 else "cut_long",
            "caution" if off < 0 else "note",
            "stretchers",
            f"{part.name[0].upper()}{part.name[1:]} was cut {show.fine(abs(off)).text} too "
            f"{'short' if off < 0 else 'long'} for its place.",
            f"It enters each socket {show.fine(abs(off) / 2.0).text} less: enough if the sockets are deep, "
            "else make it anew."
            if off < 0
            else "Take it off its ends, half at each, before the glue.",
            tuple(end.leg for end in part.ends if end.leg),
            show.fine(off),
            show.fine(CUT_MM),
            None,
            f"members.{part.number - 1}",
        )
