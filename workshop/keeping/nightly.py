"""What the workshop does for itself once a night."""

from __future__ import annotations

import logging
import shutil
import sqlite3
import time
from datetime import date, timedelta
from pathlib import Path

from axes.models import AccessAttempt
from django.conf import settings
from django.db import transaction
from django.db.models import F
from django.utils import timezone

from workshop.accounts.models import SignedIn
from workshop.accounts.sessions import MOST_NIGHTS, end
from workshop.keeping import archive, backup
from workshop.keeping.models import Night
from workshop.pieces.models import BIN_NIGHTS, PieceRow

log = logging.getLogger(__name__)
FROM_HOUR = 2
"""The hour of the night from which the work is done; a workshop that was off does it when it starts."""


def due(now: time.struct_time) -> bool:
    """Whether tonight's work is still to be done. Any other day than the last one counts, an earlier one
    too: a clock that was years ahead does not stop the backups once it is right."""
    row = Night.objects.filter(pk=1).first()
    today = date(now.tm_year, now.tm_mon, now.tm_mday)
    return now.tm_hour >= FROM_HOUR and (row is None or row.day != today)


def tonight(now: time.struct_time) -> str:
    """Back up, then let go of what was let go of long enough ago; what went wrong, empty for nothing."""
    trouble = ""
    try:
        copy_out(backup.make(settings.DATA_DIR, "night", beside=archive.write_into))
    except (OSError, sqlite3.Error, backup.NotABackup) as error:
        log.exception("The night's backup failed")
        trouble = f"The last night's backup failed: {error}"[:400]
    count_nights()
    today = date(now.tm_year, now.tm_mon, now.tm_mday)
    Night.objects.update_or_create(
        pk=1, defaults={"day": today, "done": timezone.now(), "trouble": trouble}
    )
    return trouble


def copy_out(made: Path) -> None:
    """Put the archive on the stick as well, where one was named and is in; OSError as it comes."""
    stick = settings.BACKUPS_TO
    if stick is not None and stick.is_dir():
        # Under another name until it is whole: a stick may be pulled out at any moment.
        fresh = stick / f"{made.name}.part"
        shutil.copyfile(made, fresh)
        fresh.replace(stick / made.name)
        ours = sorted(one for one in stick.glob("*-night.zip") if backup.NAMED.fullmatch(one.name))
        for old in ours[: -backup.KEPT["night"]]:
            old.unlink()


@transaction.atomic
def count_nights() -> None:
    """One night more for what waits to be let go. Counted, since clocks of old machines go wrong."""
    binned = PieceRow.objects.filter(removed__isnull=False)
    binned.update(nights=F("nights") + 1)
    binned.filter(nights__gte=BIN_NIGHTS).delete()
    SignedIn.objects.update(nights=F("nights") + 1)
    end(SignedIn.objects.filter(nights__gte=MOST_NIGHTS))
    # A wrong password typed under a wrong clock must not hold its maker out for years.
    hour = timedelta(hours=1)
    AccessAttempt.objects.filter(attempt_time__gt=timezone.now() + hour).delete()
    AccessAttempt.objects.filter(attempt_time__lt=timezone.now() - hour).delete()
