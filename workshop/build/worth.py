"""What a piece cost, and the same piece again."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction

from splay.build import Build, write_build
from splay.build.again import as_built
from splay.build.cost import Cost, cost_of
from splay.document import plain_name
from splay.shop import Shop
from workshop.build.log import Line, write
from workshop.build.models import BuildRow, OwnRate
from workshop.build.situation import Situation, situation
from workshop.pieces import actions as pieces
from workshop.pieces.actions import Maker, get_row, named
from workshop.pieces.models import PieceRow


def rate_of(maker: Maker) -> tuple[float, str]:
    """What a maker's hour costs, and in which money; 0 where they never said."""
    row = OwnRate.objects.filter(maker=maker.pk).first()
    return (row.rate, row.money) if row else (0.0, "")


def keep_rate(rate: float, money: str, maker: Maker) -> None:
    """Keep what a maker's hour costs."""
    who = named(maker)
    assert who is not None
    said = {"rate": rate, "money": plain_name(money)}
    OwnRate.objects.update_or_create(maker=who, defaults=said)


def cost(now: Situation, rate: float) -> Cost:
    """What a piece cost by now at a rate an hour."""
    ticked = now.row.units_done.exclude(minutes=None).values_list("operation", "minutes")
    noted = now.row.log.filter(sort__in=("note", "lesson", "repair", "time")).exclude(minutes=None)
    minutes = [(operation, took or 0.0) for operation, took in ticked]
    minutes += [
        (operation or "own", took or 0.0) for operation, took in noted.values_list("operation", "minutes")
    ]
    mishaps = list(now.row.log.filter(sort="mishap").values_list("data", flat=True))
    scrapped = sum(int(one.get("scrapped", 0)) for one in mishaps)
    record, make = now.record, now.piece.make
    return cost_of(now.order, now.build, minutes, rate, record, len(mishaps), scrapped, make)


@transaction.atomic
def build_again(id: UUID, built: bool, shop: Shop, maker: Maker) -> PieceRow:
    """Hang up a piece to be built again: as it was chosen, or with the leans its holes have; its order of
    work comes along, what was promised and paid for does not."""
    now = situation(get_row(id, maker), shop, maker)
    piece = as_built(now.piece, now.plan) if built else now.piece
    piece = piece.model_copy(update={"name": pieces.fresh_name(piece.name, maker)})
    row = pieces.put_on_rack(piece, maker)
    order = now.build.model_copy(update={"promised": None, "spent": ()})
    if order != Build():
        BuildRow.objects.create(piece=row, document=write_build(order), number=1, by=named(maker))
    write(row, Line("note", f"Built again from {now.piece.name}"), maker)
    return row
