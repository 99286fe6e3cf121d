"""The shop, read and changed."""

from secrets import token_hex
from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema

from splay.pictured import every_tool, tool_pictures
from splay.quantity import Bare, Quantity, Show
from splay.shop import Shop, Tool, read_shop, ready_shops, write_shop
from splay.summary import chosen
from splay.views.shapes import View
from workshop.sent import Sent
from workshop.shop.models import Maker, keep_shop, the_shop, unasked

router = Router()


class ShopOut(Schema):
    """The shop, and each of its typed values by path as the maker reads it. `unasked` says what whoever
    looks has not been asked yet: their units; the shop's tools, where nobody has been."""

    shop: Shop
    chosen: dict[str, Quantity]
    unasked: list[Literal["units", "tools"]]


class ShopIn(Sent):
    """A shop's document; texts without a unit are read in `bare`."""

    shop: dict[str, Any]
    bare: Bare | None = None


def _out(shop: Shop, maker: Maker) -> ShopOut:
    return ShopOut(shop=shop, chosen=chosen(shop, Show(shop.rounding.units())), unasked=unasked(maker))


@router.get("", response={200: ShopOut})
def read(request: HttpRequest) -> ShopOut:
    """The shop's tools and units."""
    return _out(the_shop(request.user), request.user)


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


@router.get("/ready", response={200: list[ReadyShop]})
def ready(request: HttpRequest) -> list[ReadyShop]:
    """Ready-made sets of tools, and every tool there is to add one from."""
    sets = ready_shops()
    return [ReadyShop(name=name, title=title, tools=list(sets[name])) for name, title in _TITLES.items()]


class EveryTool(Schema):
    """One tool of each kind there is, and a picture of it at work by kind, for most."""

    tools: list[Tool]
    pictures: dict[str, View]


@router.get("/tools", response={200: EveryTool})
def tools(request: HttpRequest) -> EveryTool:
    """Every kind of tool, to be ticked by sight."""
    return EveryTool(tools=list(every_tool()), pictures=tool_pictures())


@router.get("/file", response={200: dict[str, Any]})
def file(request: HttpRequest, response: HttpResponse) -> dict[str, Any]:
    """The shop as a file: its tools, bits, spacers and printer, and this maker's own units."""
    response["Content-Disposition"] = 'attachment; filename="shop.json"'
    return write_shop(the_shop(request.user))


@router.put("", response={200: ShopOut})
def change(request: HttpRequest, payload: ShopIn) -> ShopOut:
    """Change the shop's tools or units."""
    bare = payload.bare or the_shop(request.user).rounding.system
    kept = keep_shop(read_shop(payload.shop, bare, "shop", token_hex()), request.user)
    return _out(kept, request.user)
