"""A set-up card about one figure, with most of it left empty."""

from __future__ import annotations

from dataclasses import dataclass

from splay.quantity import Figure, Quantity
from splay.setups.card import SetUp
from splay.setups.dial import Dial
from splay.setups.scenes import Scene
from splay.shop import Tool
from splay.work.does import Do
from splay.work.doing import steps
from splay.work.lays import Lay
from splay.work.lying import which_way
from splay.work.marks import Mark


@dataclass(frozen=True)
class Bench:
    """What needs no tool with a scale: rule and pencil, a lathe, a drawknife; `kind` as of a tool."""

    kind: str
    name: str


PENCIL = Bench("marking", "Rule, square and pencil")


def plain_card(
    work: str,
    station: str,
    operation: str,
    tool: Tool | Bench,
    title: str,
    figure: Figure,
    name: str,
    scene: Scene,
    *,
    dials: tuple[Dial, ...] = (),
    setting: Quantity | None = None,
    lays: tuple[Lay, ...] = (),
    does: tuple[Do, ...],
    jig: tuple[Figure, ...] = (),
    note: str = "",
    caution: str = "",
    parts: tuple[str, ...] = (),
    legs: tuple[int, ...] = (),
    proofs: tuple[str, ...] = (),
    uses: tuple[Mark, ...] = (),
    makes: tuple[Mark, ...] = (),
    loses: tuple[Mark, ...] = (),
) -> SetUp:
    """A card whose setting is one figure; `note` says what keeps the tool from getting there."""
    return SetUp(
        work=work,
        by=tool.kind if isinstance(tool, Bench) else tool.id,
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
        which_way=which_way(lays),
        steps=steps(does),
        turns=(),
        jig=jig,
        in_reach=not note,
        reach_note=note,
        scene=scene,
        proofs=proofs,
        checks=(),
        cautions=(caution,) if caution else (),
        parts=parts,
        lays=lays,
        does=does,
        uses=uses,
        makes=makes,
        loses=loses,
    )
