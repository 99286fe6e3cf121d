"""The build: what comes when and why, what is waiting, what went wrong, what was learned."""

from splay.build.document import Build, OwnStep, Skip, build_schema, read_build, write_build
from splay.build.known import NOTHING, Record, takes
from splay.build.order import Broken, Order, order_of
from splay.build.step import Minutes, Need, Step, Unit, Wait

__all__ = [
    "NOTHING",
    "Broken",
    "Build",
    "Minutes",
    "Need",
    "Order",
    "OwnStep",
    "Record",
    "Skip",
    "Step",
    "Unit",
    "Wait",
    "build_schema",
    "order_of",
    "read_build",
    "takes",
    "write_build",
]
