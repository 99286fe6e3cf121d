"""The shop, read and changed."""

from secrets import token_hex
from typing import Any, Literal

from django.http import HttpRequest
from ninja import Router, Schema

from splay.quantity import Bare, Quantity, Show
from splay.shop import Shop, Tool, read_shop, ready_shops
from splay.summary import chosen
from workshop.problems import Problem
from workshop.shop.models import keep_shop, the_shop

router = Router()


class ShopOut(Schema):
    """The shop, and each of its typed values by path as the maker reads it."""

    shop: Shop
    chosen: dict[str, Quantity]


class ShopIn(Schema):
    """A shop's document; texts without a unit are read in `bare`."""

    shop: dict[str, Any]
    bare: Bare | None = None


def _out(shop: Shop) -> ShopOut:
    return ShopOut(shop=shop, chosen=chosen(shop, Show(shop.rounding.units())))


@router.get("", response={200: ShopOut, 401: Problem})
def read(request: HttpRequest) -> ShopOut:
    """The shop's tools and units."""
    return _out(the_shop())


class ReadyShop(Schema):
    """A set of tools to begin with."""

    name: Literal["hand", "machine", "class"]
    title: str
    tools: list[Tool]


_TITLES: dict[Literal["hand", "machine", "class"], str] = {
    "hand": "a hand-tool bench",
    "machine": "a small machine shop",
    "class": "a classroom",
}


@router.get("/ready", response={200: list[ReadyShop], 401: Problem})
def ready(request: HttpRequest) -> list[ReadyShop]:
    """Ready-made sets of tools, and every tool there is to add one from."""
    sets = ready_shops()
    return [ReadyShop(name=name, title=title, tools=list(sets[name])) for name, title in _TITLES.items()]


@router.put("", response={200: ShopOut, (400, 401, 403, 413, 422): Problem})
def change(request: HttpRequest, payload: ShopIn) -> ShopOut:
    """Change the shop's tools or units."""
    bare = payload.bare or the_shop().rounding.system
    return _out(keep_shop(read_shop(payload.shop, bare, "shop", token_hex()), request.user))
