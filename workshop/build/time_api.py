"""Time: several pieces over one maker's working hours."""

from datetime import date, datetime
from typing import Annotated
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router, Schema
from pydantic import Field

from splay.build.hours import read_week, week_lines
from splay.build.schedule import Hours, Moved, Slot, moved
from workshop.build import time
from workshop.sent import Sent
from workshop.shop.models import the_shop

router = Router()
Zone = Annotated[str, Field(max_length=60)]
Line = Annotated[str, Field(max_length=80)]


class HoursIn(Sent):
    """When a maker works, as typed: a line a day from Monday on, "8 to 12, 13:30-17"; and days off."""

    lines: Annotated[list[Line], Field(min_length=7, max_length=7)]
    off: Annotated[list[date], Field(max_length=400, default_factory=list)]


class HoursOut(Schema):
    """The same as it was read."""

    lines: tuple[str, ...]
    off: list[date]


class PieceTime(Schema):
    """One piece in the schedule: when it ends, the day it is promised for, hours late, what holds it, the
    hours of work left."""

    id: UUID
    name: str
    ends: datetime | None
    promised: date | None
    late_h: float
    past: bool
    why: str
    work_h: float


class TimeOut(Schema):
    """The schedule of a maker's pieces. `least` is when all could end at the earliest; `moved` what becomes
    of each where something slips; `trouble` pieces that cannot be planned."""

    hours: HoursOut
    own: bool
    slots: list[Slot]
    pieces: list[PieceTime]
    moved: list[Moved]
    work_h: float
    least: datetime | None
    trouble: list[str]
    now: datetime


@router.get("", response={200: TimeOut})
def look(
    request: HttpRequest,
    zone: Zone = "",
    slip: UUID | None = None,
    by_h: Annotated[float, Field(ge=0, le=1000)] = 0.0,
) -> TimeOut:
    """A maker's pieces over their working hours; with the next step of one so many hours longer."""
    where, now = time.zone_of(zone), timezone.now()
    jobs, trouble = time.jobs_of(the_shop(request.user), request.user, now, where)
    made = time.laid_out(jobs, request.user, now, where)
    told: tuple[Moved, ...] = ()
    if slip is not None:
        later = time.laid_out(jobs, request.user, now, where, (str(slip), by_h))
        told, made = moved(jobs, made, later), later
    hours = time.hours_of(request.user)
    by = {one.job: one for one in made.ends}
    return TimeOut(
        hours=_told(hours),
        own=hours is not time.USUAL,
        slots=list(made.slots),
        pieces=[
            PieceTime(
                id=UUID(job.id),
                name=job.name,
                ends=by[job.id].ends,
                promised=None if job.promised is None else time.day_of(job.promised),
                late_h=by[job.id].late_h,
                past=job.promised is not None and job.promised < now,
                why=by[job.id].why,
                work_h=sum(task.minutes for task in job.tasks) / 60.0,
            )
            for job in jobs
        ],
        moved=list(told),
        work_h=made.work_h,
        least=made.least,
        trouble=trouble,
        now=now,
    )


@router.put("/hours", response={200: HoursOut})
def keep_hours(request: HttpRequest, payload: HoursIn) -> HoursOut:
    """Keep when this maker works."""
    hours = Hours(read_week(payload.lines), frozenset(payload.off))
    time.keep_hours(hours, request.user)
    return _told(hours)


def _told(hours: Hours) -> HoursOut:
    return HoursOut(lines=week_lines(hours.stretches), off=sorted(hours.off))


@router.get("/calendar", response={200: None})
def calendar(request: HttpRequest, zone: Zone = "") -> HttpResponse:
    """The schedule as an iCalendar file."""
    where, now = time.zone_of(zone), timezone.now()
    jobs, _ = time.jobs_of(the_shop(request.user), request.user, now, where)
    body = time.calendar(jobs, time.laid_out(jobs, request.user, now, where), now)
    answer = HttpResponse(body, content_type="text/calendar; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="proud-rake.ics"'
    return answer
