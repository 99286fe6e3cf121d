"""What a place in the piece's document is called: the maker's words for a dotted path."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from splay.paths import into, steps

_SUPPORTS = {
    "staked_legs": "legs",
    "plane_frames": "frames",
    "mitred_frames": "mitred frames",
    "board_sides": "board sides",
    "slab_leg": "slab leg",
    "aproned_legs": "legs and aprons",
}
PARTS = {
    "outline": "outline",
    "hollow": "hollow",
    "upper_edge": "upper edge",
    "lower_edge": "lower edge",
    "boards": "board",
    "placement": "",
    "angles": "lean",
    "leg": "",
    "belly": "belly",
    "joint": "joint",
    "peg": "peg",
    "cross": "cross-piece",
    "arc": "arc",
    "dowels": "dowels",
    "cut_out": "cut-out between the feet",
    "lower": "lower tread",
    "splines": "splines",
    "taper": "taper",
    "wedge": "wedge",
    "held": "what holds the top",
    "edges": "edge, place",
    "outside": "dowels from outside",
    "rails": "rail",
    "spots": "spot",
    "hand_holds": "hand-hold",
    "gap": "gap between its boards",
    "sticks": "stick",
    "old": "old hole",
    "bend": "bend",
    "ends": "end",
    "level": "",
    "photo": "photograph",
    "corners": "corner",
    "passes": "pass",
}
"""What a part within a part is called; empty where its figures are named without it."""
FIELDS = {
    "name": "name",
    "use": "what it is for",
    "make": "how many are made",
    "height": "height",
    "underfoot": "what is under the feet",
    "notes": "notes",
    "fall": "fall",
    "toward": "way it falls",
    "thickness": "thickness",
    "grain": "grain",
    "bark": "bark",
    "kind": "kind",
    "way": "kind",
    "by": "way it is given",
    "diameter": "diameter",
    "length": "length",
    "width": "width",
    "corner": "corners' radius",
    "side": "side",
    "arc": "arc",
    "first": "where the first one stands",
    "straight": "straight part",
    "bow": "bow",
    "smooth": "drawn round",
    "x": "to the right",
    "y": "to the back",
    "turn": "turn",
    "across": "width across",
    "chord": "width",
    "depth": "depth",
    "strips": "strip by strip",
    "stays": "line that stays",
    "size": "size",
    "angle": "slope",
    "scope": "legs that lean alike",
    "allowance": "trim allowance",
    "count": "how many",
    "radius": "radius",
    "legs": "legs",
    "from_ends": "in from the ends",
    "from_edges": "in from front and back",
    "mirror": "mirrored",
    "splay": "splay",
    "rake": "rake",
    "resultant": "resultant",
    "sightline": "sightline",
    "measured_from": "where the sightline is measured from",
    "section": "section",
    "at_top": "thickness at the top",
    "at_foot": "thickness at the foot",
    "at": "place",
    "facing": "way a face is turned",
    "made_by": "way the legs are made",
    "tenon_by": "way the tenon is made",
    "neck": "neck at the top",
    "cove": "cove, radius",
    "eased": "mouth eased",
    "relief": "foot bevel",
    "spare": "spare legs",
    "practice": "practice legs",
    "note": "note",
    "place": "way its place is found",
    "nearer": "nearer end",
    "farther": "far end",
    "socket": "socket",
    "proud": "proud of the top",
    "left": "left on for the saw",
    "recess": "recess, deep on its shallow side",
    "bored_from": "face it is bored from",
    "entry": "where it goes in",
    "margin": "margin",
    "included": "included taper",
    "per_turn": "what a turn adds",
    "batten_width": "batten, width",
    "batten_thickness": "batten, thickness",
    "end": "end",
    "screws": "screws",
    "screw": "screw",
    "counterbore": "how deep the heads are let in",
    "core": "pilot",
    "into_top": "length in the top",
    "face": "width of the leg",
    "sides": "tapered sides",
    "begins": "where it begins",
    "bite": "depth in the top",
    "edge": "thin edge",
    "kerf": "slot",
    "over": "over the hole",
    "left_on": "wood left on until it is bored",
    "dry": "driven dry",
    "head": "width of the head",
    "groove": "groove, width",
    "deep": "groove, depth",
    "wide": "width of a button",
    "slant": "slant",
    "moves": "room to move",
    "foot": "width at the foot",
    "links": "links",
    "link_width": "link, width",
    "link_thickness": "link, thickness",
    "drop": "drop",
    "rise": "rise",
    "upper": "upper edge",
    "offset": "set back",
    "lies": "way it lies",
    "narrower": "narrower end",
    "off": "in from the edge",
    "faces": "way it faces",
    "board": "short board, width",
    "past_front": "past the boards in front",
    "past_ends": "past the boards at the ends",
    "gap": "gap",
    "driven": "driven from outside",
    "rail": "rail, depth",
    "leg": "leg",
    "crossing": "where they cross",
    "frames": "how many frames",
    "sharp": "sharp corner",
    "down": "down the leg",
    "front": "front edge",
    "back": "back edge",
    "plumb": "plumb ones",
    "past": "past the mitre",
    "true_section": "legs planed to the aprons",
    "apron": "apron, height",
    "arch": "aprons' arch",
    "setback": "apron set back",
    "tenon": "tenon",
    "spring": "spring",
    "on": "what it stands in",
    "value": "place",
    "member": "stretcher it stands in",
    "share": "share of the length",
    "ease": "hole over rope",
    "closed": "goes all round",
    "knot": "length for the knot",
    "why": "why it was left",
    "flat": "flat to within",
    "lean_allowed": "lean it may take",
    "raised": "blocks it lies on",
    "places": "blocks",
    "format": "format of the file",
    "version": "version of the file",
    "id": "id",
}
"""What each field is called, whatever part it belongs to; a test holds it against the schema."""


def called(document: object, path: str) -> str:
    """The words for a dotted path into a piece's document: "legs, lean, splay"; "" for the whole.

    Whatever the path leads through that is not there is passed over.
    """
    through = steps(path)
    words: list[str] = []
    here: Any = document
    for index, step in enumerate(through):
        holder, here = here, into(here, step)
        if step.isdecimal():
            continue
        after = through[index + 1] if index + 1 < len(through) else ""
        words.append(_word(step, after, through[:index], holder, here))
    return ", ".join(word for word in words if word)


def _word(step: str, after: str, before: list[str], holder: Any, here: Any) -> str:
    """What one step of a path is called; `after` is the next one, a number where this is a list."""
    number = int(after) + 1 if after.isdecimal() else 0
    one = into(here, after) if number else None
    if not before or before[0] == "trials":
        whole = _whole(step, number, one, here)
        if whole is not None:
            return whole
    if step == "leg" and isinstance(here, str):
        return "stands in"
    if step in PARTS and (number or isinstance(here, Mapping)):
        several = number and (not isinstance(here, list | tuple) or len(here) > 1)
        return f"{PARTS[step]} {number}" if several and PARTS[step] else PARTS[step]
    return FIELDS.get(step, step.replace("_", " "))


def _whole(step: str, number: int, one: Any, here: Any) -> str | None:
    """What a part of the piece as a whole is called; None for what is none."""
    name = one.get("name") if isinstance(one, Mapping) else ""
    named = name if isinstance(name, str) else ""
    if step == "supports":
        if not number:
            return "what it stands on"
        kind = _SUPPORTS.get(str(one.get("kind")), "legs") if isinstance(one, Mapping) else "legs"
        many = isinstance(here, list | tuple) and len(here) > 1
        return f"{kind}, set {number}" if many else kind
    if step == "members":
        rope = isinstance(one, Mapping) and one.get("kind") == "rope"
        return (named or f"{'rope' if rope else 'stretcher'} {number}") if number else "stretchers"
    if step == "trials":
        return (f"trial “{named}”" if named else f"trial {number}") if number else "trials"
    return {"top": "top", "levelling": "levelling", "lean": "seat"}.get(step)
