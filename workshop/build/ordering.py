"""The maker's own order of a piece, and the one kept for the next of its kind."""

from __future__ import annotations

from secrets import token_hex
from typing import Any
from uuid import UUID

from django.db import transaction

from splay.build import Build, read_build, write_build
from splay.build.labels import TITLES
from splay.shop import Shop
from workshop.build.log import Line, write
from workshop.build.models import BuildRow, KeptOrder
from workshop.build.situation import kind_of, situation
from workshop.pieces.actions import Maker, get_row, named
from workshop.problems import Conflict


@transaction.atomic
def keep_build(id: UUID, document: dict[str, Any], based_on: int, shop: Shop, maker: Maker) -> BuildRow:
    """Keep the maker's own order of a piece; Conflict where somebody changed it meanwhile."""
    row = get_row(id, maker)
    build = read_build(document, "build", token_hex())
    had = BuildRow.objects.select_for_update().filter(piece=row).first()
    if (had.number if had else 0) != based_on:
        raise Conflict(
            "Somebody changed the order of this piece meanwhile. Look at it, then change it again."
        )
    before = read_build(had.document) if had else Build()
    if build == before and had is not None:
        return had
    kept, _ = BuildRow.objects.update_or_create(
        piece=row,
        defaults={"document": write_build(build), "number": based_on + 1, "by": named(maker)},
    )
    # What only changes a figure (the shop's air) is no event.
    if said := _changed(before, build):
        write(row, Line("order", said), maker)
    return kept


def _changed(before: Build, after: Build) -> str:
    """What became of the order, in words."""
    said = []
    had, has = {one.key: one.why for one in before.skipped}, {one.key: one.why for one in after.skipped}
    said += [f"left out: {key}{f' ({why})' if why else ''}" for key, why in has.items() if key not in had]
    said += [f"taken in again: {key}" for key in had if key not in has]
    titles = {one.id for one in before.added}
    said += [f"added: {one.title}" for one in after.added if one.id not in titles]
    if before.glue != after.glue:
        said.append(f"glue: {_word('glue', after.glue)}")
    if before.outline != after.outline:
        said.append(f"the outline is cut {_word('outline', after.outline)}")
    if before.prefinish != after.prefinish:
        said.append(f"finished {_word('prefinish', 'yes' if after.prefinish else 'no')}")
    if before.promised != after.promised:
        said.append(f"promised for {after.promised}" if after.promised else "no longer promised")
    if (before.finish, before.used) != (after.finish, after.used):
        used = f", {_word('used', after.used)}" if after.used else ""
        said.append(f"finish: {_word('finish', after.finish)}{used}")
    paid = [one for one in after.spent if one not in before.spent]
    said += [f"paid: {one.what}, {one.amount:g}" for one in paid]
    moved = (before.order, before.split, before.merged) != (after.order, after.split, after.merged)
    return "; ".join(said) or ("the order was changed" if moved else "")


def _word(field: str, value: str) -> str:
    """A choice as the maker reads it."""
    return TITLES[f"Build.{field}"][value]


@transaction.atomic
def keep_order(id: UUID, shop: Shop, maker: Maker) -> None:
    """Keep the order of a piece as this maker's own for the next piece of its kind."""
    row = get_row(id, maker)
    now = situation(row, shop, maker)
    operations = list(dict.fromkeys(unit.operation for step in now.order.steps for unit in step.units))
    operations = [name for name in operations if name != "own"]
    who = named(maker)
    assert who is not None
    KeptOrder.objects.update_or_create(
        maker=who, kind=kind_of(now.piece), defaults={"operations": operations}
    )
    write(row, Line("order", "kept for the next one of its kind"), maker)
