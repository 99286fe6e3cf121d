"""Shop: the tools a workshop owns, how each scale reads, how far it reaches."""

from splay.shop.model import SHOP_FORMAT, Rounding, Shop, read_shop, shop_schema, write_shop
from splay.shop.ready import workbench
from splay.shop.scale import Scale, reading
from splay.shop.tools import (
    AngleGuide,
    BevelGauge,
    Bit,
    DigitalGauge,
    GuideBlock,
    Handsaw,
    MitreSaw,
    Ramp,
    TiltingTable,
    Tool,
)

__all__ = [
    "SHOP_FORMAT",
    "AngleGuide",
    "BevelGauge",
    "Bit",
    "DigitalGauge",
    "GuideBlock",
    "Handsaw",
    "MitreSaw",
    "Ramp",
    "Rounding",
    "Scale",
    "Shop",
    "TiltingTable",
    "Tool",
    "read_shop",
    "reading",
    "shop_schema",
    "workbench",
    "write_shop",
]
