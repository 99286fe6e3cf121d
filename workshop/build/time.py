"""One maker's pieces over their working hours, and the same as a calendar."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta, tzinfo
from datetime import time as time_of_day
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from django.contrib.auth.models import User
from django.utils import timezone
from icalendar import Calendar, Event

from splay.build.jobs import job_of
from splay.build.schedule import Hours, Job, Schedule, Stretch, schedule, slipped
from splay.errors import BadInput, Fault, SplayError, shorten
from splay.shop import Shop
from workshop.build.models import OwnHours
from workshop.build.situation import situation
from workshop.pieces.actions import Maker, hanging_for

USUAL = Hours(tuple(Stretch(day, 9.0, 17.0) for day in range(5)))
"""What is taken of a maker who never said."""
MOST_PIECES = 40


def zone_of(name: str) -> tzinfo:
    """A time zone by its name; the shop's own where none is named. BadInput for one that is not known."""
    if not name:
        return timezone.get_default_timezone()
    try:
        return ZoneInfo(name)
    except (ZoneInfoNotFoundError, ValueError):
        do = "Name one as Europe/Lisbon does."
        raise BadInput(Fault("zone", shorten(name), "a time zone", do)) from None


def hours_of(maker: Maker) -> Hours:
    """When a maker works."""
    row = OwnHours.objects.filter(maker=maker.pk).first()
    if row is None:
        return USUAL
    return Hours(
        tuple(Stretch(*one) for one in row.stretches), frozenset(date.fromisoformat(day) for day in row.off)
    )


def keep_hours(hours: Hours, maker: Maker) -> None:
    """Keep when a maker works; BadInput where that cannot be."""
    assert isinstance(maker, User)
    hours.checked()
    OwnHours.objects.update_or_create(
        maker=maker,
        defaults={
            "stretches": [[one.weekday, one.begins_h, one.ends_h] for one in hours.stretches],
            "off": sorted(day.isoformat() for day in hours.off),
        },
    )


def jobs_of(shop: Shop, maker: Maker, now: datetime, zone: tzinfo) -> tuple[list[Job], list[str]]:
    """What is left of a maker's unfinished pieces; the names of those that cannot be planned."""
    made: list[Job] = []
    trouble: list[str] = []
    rows = hanging_for(maker).filter(made_by=maker.pk, finished=None).order_by("-turn")[:MOST_PIECES]
    for row in rows:
        try:
            here = situation(row, shop, maker)
        except SplayError:
            trouble.append(str((row.hung or {}).get("name", "a piece without a name")))
            continue
        copies = [here.done.get(copy, ()) for copy in range(1, here.piece.make + 1)]
        day = here.build.promised
        promised = datetime.combine(day + timedelta(days=1), time_of_day(0), zone) if day else None
        job = job_of(str(row.pk), here.piece.name, here.order, copies, here.record, promised, now)
        if job.tasks:
            made.append(job)
    return made, trouble


def laid_out(
    jobs: list[Job], maker: Maker, now: datetime, zone: tzinfo, slip: tuple[str, float] | None = None
) -> Schedule:
    """The pieces over the maker's hours; with the next step of one so many hours longer."""
    given = slipped(jobs, *slip) if slip else jobs
    return schedule(given, hours_of(maker), now, zone)


def day_of(promised: datetime) -> date:
    """The day that ends with a promise."""
    return (promised - timedelta(days=1)).date()


def calendar(jobs: list[Job], made: Schedule, now: datetime) -> bytes:
    """The schedule as an iCalendar file (RFC 5545): an event for each stretch of work, and each promise."""
    names = {job.id: job.name for job in jobs}
    out = Calendar()
    out.add("prodid", "-//Proud Rake//order of work//EN")
    out.add("version", "2.0")
    for number, slot in enumerate(made.slots):
        event = Event()
        event.add("uid", f"{slot.job}-{number}@proud-rake")
        event.add("dtstamp", now.astimezone(UTC))
        event.add("dtstart", slot.begins.astimezone(UTC))
        event.add("dtend", slot.ends.astimezone(UTC))
        event.add("summary", f"{names[slot.job]}: {slot.title}")
        if slot.rests_until:
            until = f"{slot.rests_until:%Y-%m-%d %H:%M}"
            event.add("description", f"Then it rests until {until} for {slot.for_what}.")
        out.add_component(event)
    for job in jobs:
        if job.promised:
            event = Event()
            event.add("uid", f"{job.id}-promised@proud-rake")
            event.add("dtstamp", now.astimezone(UTC))
            event.add("dtstart", day_of(job.promised))
            event.add("summary", f"{job.name}: promised")
            out.add_component(event)
    return bytes(out.to_ical())
