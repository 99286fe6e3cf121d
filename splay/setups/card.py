"""What a set-up card says."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Annotated

from splay.quantity import Figure, Quantity
from splay.setups.dial import Dial
from splay.setups.scenes import Scene
from splay.work.does import Do
from splay.work.lays import Lay, Wedge
from splay.work.marks import UNSENT, Mark
from splay.work.takes import Take


@dataclass(frozen=True)
class Turn:
    """How one leg's sightline lies on the top: folded from both lines, and in words."""

    leg: int
    from_side: Quantity | None
    from_centre: Quantity | None
    toward: str


@dataclass(frozen=True)
class Proof:
    """A question one reading answers: what to measure, what is expected, how near is near enough.

    `kind` is one of those there are, `of` the ids of what it is taken on; the `id` is both together.
    `expected` is on the scale named by `read_on`; `answer` is the reading given, `off` how far it
    lies from what was expected, `verdict` "", "fine", "off" (cut to suit) or "slip" (read wrong, and
    `slip` says how, likely: later figures do not follow it); `usual` is the maker's own spread of such
    readings, `unusual` says that this one lies well outside it; `part` is what it is taken on,
    `station` where it is asked, `short` what its field is called; `dry` that the parts are put together
    dry for it. `how` are the words of `take`.
    """

    id: str
    leg: int
    what: str
    how: str
    read_on: str
    expected: Quantity
    near: Quantity
    matters: str
    answer: Quantity | None
    off: Quantity | None
    verdict: str
    part: str
    station: str
    short: str
    slip: str
    usual: Quantity | None
    unusual: bool
    take: Annotated[Take | None, UNSENT]
    kind: str
    of: tuple[str, ...]
    dry: bool


@dataclass(frozen=True)
class SetUp:
    """One card: what is done to which legs with which tool, the setting, which way, the proof.

    `work` names what is done, whatever the tool, and `by` the tool, by its id, or what is at hand on any
    bench; the `id` is both together. `proofs` are the ids of the proofs that prove this cut; `legs` the
    staked legs it is for, `parts` the keys of the sticks and members. `lays` are how the work lies and
    `does` what is done, as data: `which_way` and `steps` are their words; `wedges` make up for a reach.
    `uses` are the marks it leans on, `makes` those it leaves on the work, `loses` those that are gone
    after it.
    """

    work: str
    by: str
    station: str
    operation: str
    way: str
    tool: str
    legs: tuple[int, ...]
    title: str
    angle: Figure
    dials: tuple[Dial, ...]
    setting: Quantity | None
    setting_name: str
    which_way: tuple[str, ...]
    steps: tuple[str, ...]
    turns: tuple[Turn, ...]
    jig: tuple[Figure, ...]
    in_reach: bool
    reach_note: str
    scene: Annotated[Scene, UNSENT]
    proofs: tuple[str, ...]
    checks: tuple[Figure, ...]
    cautions: tuple[str, ...]
    parts: tuple[str, ...] = ()
    lays: Annotated[tuple[Lay, ...], UNSENT] = ()
    wedges: Annotated[tuple[Wedge, ...], UNSENT] = ()
    does: Annotated[tuple[Do, ...], UNSENT] = ()
    uses: Annotated[tuple[Mark, ...], UNSENT] = ()
    makes: Annotated[tuple[Mark, ...], UNSENT] = ()
    loses: Annotated[tuple[Mark, ...], UNSENT] = ()
    id: str = field(init=False, default="")

    def __post_init__(self) -> None:
        """The id follows from work and tool."""
        object.__setattr__(self, "id", f"{self.work}.{self.by}")
