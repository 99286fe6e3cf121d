"""A set-up card about one figure, with most of it left empty."""

from __future__ import annotations

from splay.quantity import Figure, Quantity
from splay.setups.card import Dial, Scene, SetUp
from splay.shop import Tool


def plain_card(
    key: str,
    station: str,
    operation: str,
    tool: Tool,
    title: str,
    figure: Figure,
    name: str,
    scene: Scene,
    *,
    dials: tuple[Dial, ...] = (),
    setting: Quantity | None = None,
    which: tuple[str, ...] = (),
    steps: tuple[str, ...] = (),
    jig: tuple[Figure, ...] = (),
    note: str = "",
    caution: str = "",
    parts: tuple[str, ...] = (),
    legs: tuple[int, ...] = (),
    proofs: tuple[str, ...] = (),
) -> SetUp:
    """A card whose setting is one figure; `note` says what keeps the tool from getting there."""
    return SetUp(
        id=key,
        station=station,
        operation=operation,
        way=tool.kind,
        tool=tool.name,
        legs=legs,
        title=title,
        angle=figure,
        dials=dials,
        setting=setting or figure.quantity,
        setting_name=name,
        which_way=which,
        steps=steps,
        turns=(),
        jig=jig,
        in_reach=not note,
        reach_note=note,
        scene=scene,
        proofs=proofs,
        checks=(),
        cautions=(caution,) if caution else (),
        parts=parts,
    )
