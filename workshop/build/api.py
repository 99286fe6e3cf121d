"""The build of a piece, and the log."""

from datetime import datetime, timedelta
from typing import Annotated, Any, Literal
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from ninja import Router, Schema, Status
from pydantic import Field

from splay.build.cost import Cost
from splay.build.document import LONGEST_KEY
from splay.build.finish import Finishing, finishing
from splay.build.glueup import GlueUp, glue_up
from splay.build.rescue import Rescue
from splay.quantity import Show
from workshop.build import mishaps, ordering, telling, ticking, worth
from workshop.build.answers import BuildOut, build_out
from workshop.build.models import LONGEST_SAID, Entry
from workshop.build.reading_log import EntryOut, LogOut, log_of
from workshop.build.situation import pace_of, situation
from workshop.pieces.actions import get_row
from workshop.sent import FIRST, Copy, Sent
from workshop.shop.models import the_shop

router = Router()
log_router = Router()
Key = Annotated[str, Field(max_length=LONGEST_KEY)]
Token = Annotated[str, Field(max_length=40)]
Minutes = Annotated[float, Field(ge=0, le=ticking.MOST_MINUTES)]
Seconds = Annotated[float, Field(ge=0, le=1e7)]
Note = Annotated[str, Field(max_length=LONGEST_SAID)]


class BuildSave(Sent):
    """The maker's own order and the number it was changed from."""

    document: dict[str, Any]
    based_on: Annotated[int, Field(ge=0)]
    copy_number: Copy = FIRST


class UnitIn(Sent):
    """One leg or part of a step."""

    key: Key
    operation: Annotated[str, Field(max_length=20)]
    of: Key


class Tick(Sent):
    """A step that is done, or some of its legs and parts; what it took, as typed or as counted here.
    `ago`: how many seconds ago that was, where the workshop could not be reached then."""

    step: Key
    units: Annotated[list[UnitIn], Field(max_length=400, default_factory=list)]
    copy_number: Copy = FIRST
    minutes: Minutes | None = None
    seconds: Seconds | None = None
    ago: Seconds = 0.0
    token: Token = ""


class TimerIn(Sent):
    """A step's timer, started or stopped; how long it ran by this page's own clock, and how long ago that
    was, where the workshop could not be reached then."""

    step: Key
    run: bool
    copy_number: Copy = FIRST
    seconds: Seconds | None = None
    ago: Seconds = 0.0


class WrongIn(Sent):
    """What went wrong, and the way out that was taken."""

    step: Key
    of: Key = ""
    rescue: Annotated[str, Field(max_length=20)]
    copy_number: Copy = FIRST
    amount: Annotated[str, Field(max_length=40)] = ""
    other: Key = ""
    note: Note = ""
    token: Token = ""


class RateIO(Sent):
    """What a maker's hour costs, in which money."""

    rate: Annotated[float, Field(ge=0, le=100_000)]
    money: Annotated[str, Field(max_length=8)] = ""


class CostOut(Schema):
    """What a piece cost, at the maker's rate."""

    cost: Cost
    rate: float
    money: str


class AgainIn(Sent):
    """Whether the leans are taken as they were read."""

    as_built: bool = False


class AgainOut(Schema):
    """The piece that was hung up."""

    id: UUID


class JointIn(Sent):
    """How one joint went: home, with a gap, short of home, or left open when it was stopped."""

    name: Annotated[str, Field(max_length=120)]
    outcome: Literal["home", "gap", "short", "open"]


class GluedIn(Sent):
    """How a sitting went: its steps, how long it took, each joint, whether it was stopped."""

    steps: Annotated[list[Key], Field(max_length=40)]
    dry: bool
    seconds: Seconds
    joints: Annotated[list[JointIn], Field(max_length=200)]
    stopped: bool = False
    note: Note = ""
    copy_number: Copy = FIRST
    token: Token = ""


class SaidIn(Sent):
    """A note, a lesson for the next time, a repair, or hours spent."""

    sort: Literal["note", "lesson", "repair", "time"]
    says: Note = ""
    step: Key = ""
    copy_number: Copy = FIRST
    minutes: Minutes | None = None
    token: Token = ""


def _out(request: HttpRequest, id: UUID, copy: int, said: str = "") -> BuildOut:
    row = get_row(id, request.user)
    return build_out(situation(row, the_shop(request.user), request.user, copy), request.user, said)


def _ticked(payload: Tick) -> ticking.Ticked:
    units = tuple((one.key, one.operation, one.of) for one in payload.units)
    return ticking.Ticked(
        payload.step,
        units,
        payload.copy_number,
        payload.minutes,
        payload.seconds,
        payload.token,
        timedelta(seconds=payload.ago),
    )


@router.get("/{uuid:id}/build", response={200: BuildOut})
def look(request: HttpRequest, id: UUID, copy_number: Copy = FIRST) -> BuildOut:
    """The order of work of a piece and how far it is."""
    return _out(request, id, copy_number)


@router.put("/{uuid:id}/build", response={200: BuildOut})
def keep(request: HttpRequest, id: UUID, payload: BuildSave) -> BuildOut:
    """Keep the maker's own order."""
    shop = the_shop(request.user)
    ordering.keep_build(id, payload.document, payload.based_on, shop, request.user)
    return _out(request, id, payload.copy_number)


@router.put("/{uuid:id}/build/kept", response={200: BuildOut})
def keep_order(request: HttpRequest, id: UUID) -> BuildOut:
    """Keep this order for the next piece of its kind."""
    ordering.keep_order(id, the_shop(request.user), request.user)
    return _out(request, id, FIRST)


@router.put("/{uuid:id}/build/done", response={200: BuildOut})
def tick(request: HttpRequest, id: UUID, payload: Tick) -> BuildOut:
    """Say that a step is done."""
    said = ticking.tick(id, _ticked(payload), the_shop(request.user), request.user)
    return _out(request, id, payload.copy_number, said)


@router.put("/{uuid:id}/build/undone", response={200: BuildOut})
def untick(request: HttpRequest, id: UUID, payload: Tick) -> BuildOut:
    """Say that a step is not done after all."""
    ticking.untick(id, _ticked(payload), the_shop(request.user), request.user)
    return _out(request, id, payload.copy_number)


@router.put("/{uuid:id}/build/timer", response={200: BuildOut})
def run_timer(request: HttpRequest, id: UUID, payload: TimerIn) -> BuildOut:
    """Start or stop a step's timer."""
    shop = the_shop(request.user)
    ago = timedelta(seconds=payload.ago)
    timing = ticking.Timing(payload.step, payload.run, payload.copy_number, payload.seconds, ago)
    said = ticking.run_timer(id, timing, shop, request.user)
    return _out(request, id, payload.copy_number, said)


@router.get("/{uuid:id}/build/rescues", response={200: list[Rescue]})
def ways_out(
    request: HttpRequest, id: UUID, step: Key, of: Key = "", copy_number: Copy = FIRST
) -> list[Rescue]:
    """How what went wrong at a step is usually saved."""
    return list(mishaps.ways_out(id, step, of, copy_number, the_shop(request.user), request.user))


@router.put("/{uuid:id}/build/wrong", response={200: BuildOut})
def go_wrong(request: HttpRequest, id: UUID, payload: WrongIn) -> BuildOut:
    """Write down what went wrong and do what its way out asks."""
    wrong = mishaps.Wrong(
        payload.step,
        payload.of,
        payload.rescue,
        payload.copy_number,
        payload.amount,
        payload.other,
        payload.note,
        payload.token,
    )
    said = mishaps.go_wrong(id, wrong, the_shop(request.user), request.user)
    return _out(request, id, payload.copy_number, said)


@router.get("/{uuid:id}/build/glueup", response={200: GlueUp | None})
def look_at_glue_up(request: HttpRequest, id: UUID, copy_number: Copy = FIRST) -> GlueUp | None:
    """The glue-up of a piece in today's air; nothing for one that has no joints."""
    now = situation(get_row(id, request.user), the_shop(request.user), request.user, copy_number)
    return glue_up(now.piece, now.plan, now.build, Show(now.shop.rounding.units()), pace_of(request.user))


@router.put("/{uuid:id}/build/glued", response={200: BuildOut})
def glued(request: HttpRequest, id: UUID, payload: GluedIn) -> BuildOut:
    """Keep how a sitting of the glue-up went, dry or in earnest."""
    outcomes = tuple((one.name, one.outcome) for one in payload.joints)
    ran = telling.Glued(
        tuple(payload.steps),
        payload.dry,
        payload.seconds,
        outcomes,
        payload.stopped,
        payload.note,
        payload.copy_number,
        payload.token,
    )
    telling.keep_glued(id, ran, the_shop(request.user), request.user)
    return _out(request, id, payload.copy_number)


@router.get("/{uuid:id}/build/finish", response={200: Finishing})
def look_at_finish(request: HttpRequest, id: UUID) -> Finishing:
    """How a piece is finished: coats, waits, how much of it."""
    now = situation(get_row(id, request.user), the_shop(request.user), request.user)
    return finishing(now.piece, now.plan, now.build, Show(now.shop.rounding.units()))


@router.get("/{uuid:id}/build/cost", response={200: CostOut})
def look_at_cost(request: HttpRequest, id: UUID) -> CostOut:
    """What a piece cost by now, and what the next one would."""
    now = situation(get_row(id, request.user), the_shop(request.user), request.user)
    rate, money = worth.rate_of(request.user)
    return CostOut(cost=worth.cost(now, rate), rate=rate, money=money)


@router.put("/rate", response={200: RateIO})
def keep_rate(request: HttpRequest, payload: RateIO) -> RateIO:
    """Keep what this maker's hour costs."""
    worth.keep_rate(payload.rate, payload.money, request.user)
    return payload


@router.post("/{uuid:id}/again", response={201: AgainOut})
def build_again(request: HttpRequest, id: UUID, payload: AgainIn) -> Status:
    """Hang up the same piece to be built again, with its order of work."""
    row = worth.build_again(id, payload.as_built, the_shop(request.user), request.user)
    return Status(201, AgainOut(id=row.pk))


@router.get("/{uuid:id}/log", response={200: LogOut})
def log(
    request: HttpRequest,
    id: UUID,
    words: Annotated[str, Field(max_length=200)] = "",
    sort: Annotated[str, Field(max_length=12)] = "",
    before: datetime | None = None,
) -> LogOut:
    """What happened to a piece, the latest first."""
    return log_of(request.user, id, words, sort, before)


@router.post("/{uuid:id}/log", response={200: BuildOut})
def say(request: HttpRequest, id: UUID, payload: SaidIn) -> BuildOut:
    """Write a line into a piece's log."""
    said = telling.Said(
        payload.sort, payload.says, payload.step, payload.copy_number, payload.minutes, payload.token
    )
    telling.say(id, said, the_shop(request.user), request.user)
    return _out(request, id, payload.copy_number)


@router.put("/{uuid:id}/log/photo", response={200: EntryOut})
def picture(
    request: HttpRequest,
    id: UUID,
    step: Key = "",
    says: Annotated[str, Field(max_length=400)] = "",
    copy_number: Copy = FIRST,
    token: Token = "",
) -> EntryOut:
    """Keep a photograph (the body is the picture itself) in a piece's log."""
    shop = the_shop(request.user)
    kept = telling.keep_picture(id, request.body, step, copy_number, says, token, shop, request.user)
    found = log_of(request.user, id, "", "photo", None).entries
    return next(one for one in found if one.id == kept.pk)


@router.get("/{uuid:id}/log/{int:number}/photo", response={200: None})
def see(request: HttpRequest, id: UUID, number: int) -> HttpResponse:
    """A photograph of the log, a JPEG."""
    row = get_row(id, request.user)
    image = Entry.objects.filter(piece=row, pk=number).values_list("image", flat=True).first()
    if image is None:
        raise Http404
    answer = HttpResponse(bytes(image), content_type="image/jpeg")
    answer["Cache-Control"] = "private, max-age=86400"
    return answer


@log_router.get("", response={200: LogOut})
def whole_log(
    request: HttpRequest,
    words: Annotated[str, Field(max_length=200)] = "",
    sort: Annotated[str, Field(max_length=12)] = "",
    before: datetime | None = None,
) -> LogOut:
    """What happened in the whole shop, the latest first."""
    return log_of(request.user, None, words, sort, before)
