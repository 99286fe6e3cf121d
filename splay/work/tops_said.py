"""What is done to the upper face of a top, in words."""

from __future__ import annotations

from splay.work import tops
from splay.work.saying import do
from splay.work.seat import MIDDLE, across_from


@do.register
def _(one: tops.DepthHoles) -> str:
    places = [
        f"in the middle {hole.deep.text} deep"
        if hole.out.value < MIDDLE
        else f"{hole.out.text} from the middle on either side {hole.deep.text} deep"
        for hole in one.holes
    ]
    where = f"along the {one.line} of the {one.face}"
    said = f"Depth holes, {one.bit.text}, square to it, {where}: {'; '.join(places)}."
    if one.beside is not None and one.towards is not None:
        said += (
            f" The same along two lines beside it, {one.beside.text} towards {' and '.join(one.towards)}."
        )
    return said


@do.register
def _(one: tops.Runners) -> str:
    towards = " and ".join(across_from(one.line))
    return (
        f"Two runners alike, their upper edges hollowed to a radius of {one.radius.text}: {one.low.text} "
        f"high in their middle, {one.high.text} over the hollow's rim. Fixed upright on the {one.face}, "
        f"their length towards {towards}, one at either end of the hollow, their middles over the other "
        "middle line. A flat sled lies across both and slides along them, the router runs along the sled. "
        f"The sled in the runners' middle, the bit reaches {one.deep.text} below the {one.face} in the "
        f"last pass; each pass takes {one.at_once.text} at most."
    )


@do.register
def _(one: tops.HollowLine) -> str:
    return (
        f"On the {' and the '.join(one.ends)} edge: the middle line squared down, {one.deep.text} on it "
        "from the upper face; the template through there and through the rim's lines, "
        f"{one.half.text} to either side, draws the line."
    )
