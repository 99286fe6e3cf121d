"""One step of a build, and what must stand before it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from splay.build.operations import OPERATIONS, Operation
from splay.work.marks import UNSENT

Part = Literal["legs", "parts", "piece"]


@dataclass(frozen=True)
class Unit:
    """The least there is to do and to tick: one operation of one `key` (the work, as its cards name it) on
    one leg or part, `of` its id, empty for the whole piece. `name` is what it is called."""

    key: str
    operation: str
    of: str
    name: str


@dataclass(frozen=True)
class Wait:
    """How long the work rests after a step, hours from and to, and for what."""

    least_h: float
    most_h: float
    for_what: str


@dataclass(frozen=True)
class Minutes:
    """What a step takes, minutes; `whose` says from how many of the maker's own it is, 0 for the usual."""

    minutes: float
    whose: int


@dataclass(frozen=True)
class Step:
    """One step: `title` what is done; `cards` the ids of the
    cards that tell how, one for each tool; `proofs` what is read at it, `do` what no card says; `lay_out`
    tools and jigs to have at hand, `marks` what is left on the wood for later steps; `units` what is
    ticked, `setting` the usual minutes to set up."""

    key: str
    operation: str
    title: str
    station: str
    units: tuple[Unit, ...]
    cards: tuple[str, ...] = ()
    proofs: tuple[str, ...] = ()
    do: tuple[str, ...] = ()
    lay_out: tuple[str, ...] = ()
    marks: tuple[str, ...] = ()
    caution: str = ""
    wait: Wait | None = None
    setting: float = 0.0
    serves: Annotated[tuple[str, ...], UNSENT] = ()
    """The ids of the stretchers and ropes it is done for."""
    parts: Annotated[tuple[Step, ...], UNSENT] = ()
    """The steps it was merged from, in their order."""
    split_from: Annotated[str, UNSENT] = ""
    """The key of the step it is a part of, where that was split."""

    @property
    def whole(self) -> tuple[Step, ...]:
        """The step itself, or those it was merged from."""
        return self.parts or (self,)

    @property
    def first_key(self) -> str:
        """Its key before anything was split."""
        return self.split_from or self.key

    @property
    def kind(self) -> Operation:
        """Its kind of work."""
        return OPERATIONS[self.operation]


@dataclass(frozen=True)
class Need:
    """That one step must stand before another: why, and what it costs where it does not."""

    before: str
    after: str
    why: str
    costs: str
