"""What the workshop remembers of its nights, and of what was brought in."""

from django.conf import settings
from django.db import models


class Night(models.Model):
    """The last night's work: one row. `trouble` says what went wrong, empty where nothing did."""

    day = models.DateField(null=True)
    done = models.DateTimeField(null=True)
    trouble = models.CharField(max_length=400, blank=True, default="")


class Import(models.Model):
    """Something that was brought in at once: its `sort`, and in `data` what it takes to take it back;
    `undone` says what became of that."""

    sort = models.CharField(max_length=12)
    data = models.JSONField()
    at = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    undone = models.CharField(max_length=400, blank=True, default="")

    class Meta:
        ordering = ("-pk",)
