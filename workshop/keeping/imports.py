"""What was brought in at once can be taken back at once."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from django.core.exceptions import PermissionDenied
from django.db import transaction
from django.http import Http404

from workshop.accounts.makers import the_first
from workshop.keeping.models import Import
from workshop.pieces.actions import Maker, named
from workshop.problems import Conflict

UNDO: dict[str, Callable[[dict[str, Any], Maker], str]] = {}
"""How each sort is taken back, by whoever brings it in: from its data and its maker, what became of it."""
KEPT = 200
"""So many of the latest can be taken back."""


def remember(sort: str, data: dict[str, Any], maker: Maker | None) -> Import:
    """Write down what was brought in."""
    made = Import.objects.create(sort=sort, data=data, by=named(maker))
    old = Import.objects.order_by("-pk").values_list("pk", flat=True)[KEPT:]
    Import.objects.filter(pk__in=list(old)).delete()
    return made


@transaction.atomic
def undo(number: int, maker: Maker) -> str:
    """Take back what was brought in, whole; in words what became of it. Http404 where there is no such,
    Conflict where it was taken back already; whoever brought it in may, and the first maker."""
    row = Import.objects.select_for_update().filter(pk=number).first()
    if row is None:
        raise Http404
    if named(maker) not in (row.by, the_first()):
        raise PermissionDenied("Whoever brought it in takes it back.")
    if row.undone:
        raise Conflict(f"It was taken back already: {row.undone}.")
    row.undone = UNDO[row.sort](row.data, maker)[:400]
    row.save()
    return row.undone
