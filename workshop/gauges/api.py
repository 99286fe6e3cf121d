"""Readings from instruments, and rehearsals: both on a piece that is sent along, nothing is kept."""

from typing import Annotated, Any, Literal

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from splay.errors import BadInput, Fault
from splay.instruments import Heard, listen
from splay.piece import Piece, read_piece
from splay.piece.rounded import in_round_figures
from splay.piece.starters import starter
from splay.quantity import Bare
from splay.reading import Reading
from splay.rehearse import Hidden, Revealed, reveal, seed_of, take
from splay.shop import Shop
from splay.work.proofs import KINDS, Instrument
from workshop.gauges.bench import SimulatedBench
from workshop.pieces.readings_sent import ReadingIn, read_readings
from workshop.sent import Sent
from workshop.shop.models import Maker, the_shop

router = Router()


class OnPiece(Sent):
    """A piece and what was read of it; `seed` names a rehearsal's hidden truth, else the piece's own."""

    piece: dict[str, Any]
    readings: Annotated[list[ReadingIn], Field(max_length=400, default_factory=list)]
    bare: Bare | None = None
    seed: Annotated[int, Field(ge=0, le=2**32)] | None = None
    size: Annotated[float, Field(ge=0, le=5)] = 1.0


class GaugeIn(OnPiece):
    """Which proof is taken; `count` how many readings were asked for so far, `before` the last line."""

    proof: Annotated[str, Field(max_length=80)]
    count: Annotated[int, Field(ge=1, le=10**9)] = 1
    before: Annotated[str, Field(max_length=60)] = ""


class HeardOut(Schema):
    """What came of listening to one instrument."""

    instrument: Instrument
    heard: Heard


def _known(payload: OnPiece, maker: Maker) -> tuple[Piece, Shop, Hidden, tuple[Reading, ...]]:
    shop = the_shop(maker)
    bare = payload.bare or shop.rounding.system
    piece = read_piece(payload.piece, bare, "piece")
    seed = seed_of(piece.name) if payload.seed is None else payload.seed
    return piece, shop, Hidden(seed, payload.size), read_readings(payload.readings, piece, shop, bare)


Rehearsed = Literal["round_three", "round_four", "bench", "slab"]


@router.get("/rehearsal/pieces/{start}", response={200: Piece})
def rehearsal(request: HttpRequest, start: Rehearsed) -> Piece:
    """A piece to rehearse on: assembled, its feet over length, never kept."""
    made = in_round_figures(starter(start), the_shop(request.user).rounding.system)
    return made.model_copy(update={"name": "Rehearsal", "members": ()})


@router.post("/gauges/read", response={200: HeardOut})
def listen_once(request: HttpRequest, payload: GaugeIn) -> HeardOut:
    """One reading from the instrument a proof is taken with."""
    piece, shop, hidden, known = _known(payload, request.user)
    if shop.instruments == "none" and payload.seed is None:
        do = "Say in the shop which instruments are on the bench, or type the reading."
        raise BadInput(Fault("proof", payload.proof, "an instrument on the bench", do))
    taken = take(piece, shop, hidden, known, payload.proof)
    truth, instrument = taken.value, KINDS[taken.kind].instrument
    bench = SimulatedBench(truth, moody=shop.instruments == "moody")
    return HeardOut(
        instrument=instrument,
        heard=listen(instrument, bench.send(instrument, payload.count, payload.before), payload.before),
    )


@router.post("/rehearsal/reveal", response={200: Revealed})
def show_hidden(request: HttpRequest, payload: OnPiece) -> Revealed:
    """How a rehearsal's hidden piece really stands by now."""
    piece, shop, hidden, known = _known(payload, request.user)
    return reveal(piece, shop, hidden, known)
