"""Every kind of tool as it stands on a card, for choosing among tools by sight."""

from __future__ import annotations

from functools import lru_cache

from splay.piece.starters import starter
from splay.plan import plan
from splay.shop import Tool, ready_shops, workbench
from splay.views.pictures import picture
from splay.views.shapes import View

_WORKS = ("round_three", "bench", "crossed", "aproned")
"""Pieces between which nearly every tool is used once."""


def every_tool() -> tuple[Tool, ...]:
    """One of each kind there is, as it comes in the ready-made sets."""
    found: dict[str, Tool] = {}
    for tools in ready_shops().values():
        for tool in tools:
            found.setdefault(tool.kind, tool)
    return tuple(found.values())


@lru_cache(maxsize=1)
def tool_pictures() -> dict[str, View]:
    """A picture of each kind of tool at work, by kind; none of those that are on no card by themselves."""
    tools = every_tool()
    shop = workbench().model_copy(update={"tools": tools})
    kinds = {tool.id: tool.kind for tool in shop.tools}
    found: dict[str, View] = {}
    for start in _WORKS:
        for card in plan(starter(start), shop).setups:
            kind = kinds.get(card.by)
            if kind is not None and kind not in found:
                found[kind] = picture(card.scene, card.tool)
    return found
