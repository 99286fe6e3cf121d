"""What the workshop remembers of its nights."""

from django.db import models


class Night(models.Model):
    """The last night's work: one row. `trouble` says what went wrong, empty where nothing did."""

    day = models.DateField(null=True)
    done = models.DateTimeField(null=True)
    trouble = models.CharField(max_length=400, blank=True, default="")
