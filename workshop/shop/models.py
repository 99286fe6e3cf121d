"""The row of the shop: an installation has one."""

import json
from functools import lru_cache
from typing import Literal

from django.conf import settings
from django.contrib.auth.models import AnonymousUser, User
from django.db import models, transaction

from splay.shop import Rounding, Shop, read_shop, workbench, write_shop


class ShopRow(models.Model):
    """The shop's document, and who changed it last."""

    document = models.JSONField()
    changed = models.DateTimeField(auto_now=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")


class OwnUnits(models.Model):
    """How one maker has figures shown: the tools are the shop's, the units their own."""

    maker = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="units")
    rounding = models.JSONField()


Maker = User | AnonymousUser


def the_shop(maker: Maker | None = None) -> Shop:
    """The shop as it is kept, or the one to start from, with a maker's own units where they have any."""
    row = ShopRow.objects.filter(pk=1).first()
    shop = _read(json.dumps(row.document)) if row else workbench()
    own = OwnUnits.objects.filter(maker=maker.pk).first() if maker is not None else None
    return shop.model_copy(update={"rounding": Rounding(**own.rounding)}) if own else shop


@lru_cache(8)
def _read(document: str) -> Shop:
    """A kept shop: every request asks for it, and it seldom changes."""
    return read_shop(json.loads(document))


def unasked(maker: Maker) -> list[Literal["units", "tools"]]:
    """What a maker has not been asked yet: their own units; the shop's tools, where nobody was."""
    units: list[Literal["units", "tools"]] = []
    if not OwnUnits.objects.filter(maker=maker.pk).exists():
        units.append("units")
    if not ShopRow.objects.filter(pk=1).exists():
        units.append("tools")
    return units


@transaction.atomic
def keep_shop(shop: Shop, maker: Maker | None = None) -> Shop:
    """Keep the shop as this maker has it: the units for them alone, all else for everybody. The shop's own
    units, which others begin with, are those it is first kept with."""
    by = maker if isinstance(maker, User) else None
    document = write_shop(shop)
    if by is not None:
        OwnUnits.objects.update_or_create(maker=by, defaults={"rounding": document["rounding"]})
        had = ShopRow.objects.filter(pk=1).first()
        document["rounding"] = (
            had.document.get("rounding", document["rounding"]) if had else document["rounding"]
        )
    ShopRow.objects.update_or_create(pk=1, defaults={"document": document, "by": by})
    return shop
