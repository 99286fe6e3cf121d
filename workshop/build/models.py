"""Rows of a build: the maker's order, what is ticked, timers, the log."""

from django.conf import settings
from django.db import models

from splay.build.document import LONGEST_KEY
from workshop.pieces.models import PieceRow

MAKER = settings.AUTH_USER_MODEL
LONGEST_SAID = 2000


class BuildRow(models.Model):
    """What a maker chose about the build of one piece; `number` counts its changes."""

    piece = models.OneToOneField(PieceRow, on_delete=models.CASCADE, related_name="build")
    document = models.JSONField()
    number = models.PositiveIntegerField(default=0)
    changed = models.DateTimeField(auto_now=True)
    by = models.ForeignKey(MAKER, null=True, on_delete=models.SET_NULL, related_name="+")


class KeptOrder(models.Model):
    """The order a maker keeps for the next piece of a kind, as kinds of work."""

    maker = models.ForeignKey(MAKER, on_delete=models.CASCADE, related_name="orders")
    kind = models.CharField(max_length=200)
    operations = models.JSONField()

    class Meta:
        constraints = (models.UniqueConstraint(fields=("maker", "kind"), name="one_order_a_kind"),)


class OwnHours(models.Model):
    """When a maker works: stretches of the week as weekday (0 Monday), hours from and to; days off."""

    maker = models.OneToOneField(MAKER, on_delete=models.CASCADE, related_name="hours")
    stretches = models.JSONField()
    off = models.JSONField(default=list)


class OwnRate(models.Model):
    """What one maker's hour costs, in which money."""

    maker = models.OneToOneField(MAKER, on_delete=models.CASCADE, related_name="rate")
    rate = models.FloatField(default=0.0)
    money = models.CharField(max_length=8, default="")


class ClassOrder(models.Model):
    """An order of work as one learner put it, and which reasons it broke."""

    piece = models.ForeignKey(PieceRow, on_delete=models.CASCADE, related_name="class_orders")
    learner = models.CharField(max_length=60)
    order = models.JSONField()
    broken = models.JSONField(default=list)
    at = models.DateTimeField(auto_now=True)

    class Meta:
        constraints = (models.UniqueConstraint(fields=("piece", "learner"), name="one_order_a_learner"),)


class UnitDone(models.Model):
    """One unit of work that is ticked, on one copy of the piece; `minutes` where they are known."""

    piece = models.ForeignKey(PieceRow, on_delete=models.CASCADE, related_name="units_done")
    copy = models.PositiveSmallIntegerField(default=1)
    key = models.CharField(max_length=LONGEST_KEY)
    operation = models.CharField(max_length=20)
    of = models.CharField(max_length=LONGEST_KEY, blank=True, default="")
    minutes = models.FloatField(null=True)
    at = models.DateTimeField()
    by = models.ForeignKey(MAKER, null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        ordering = ("pk",)
        constraints = (
            models.UniqueConstraint(fields=("piece", "copy", "key", "operation", "of"), name="ticked_once"),
        )
        indexes = (models.Index(fields=("by", "operation"), name="times_of_a_maker"),)


class Timer(models.Model):
    """The time spent on a step that is not done yet: seconds counted `before`, and `since` when it runs."""

    piece = models.ForeignKey(PieceRow, on_delete=models.CASCADE, related_name="timers")
    copy = models.PositiveSmallIntegerField(default=1)
    step = models.CharField(max_length=LONGEST_KEY)
    before = models.FloatField(default=0.0)
    since = models.DateTimeField(null=True)
    by = models.ForeignKey(MAKER, null=True, on_delete=models.CASCADE, related_name="+")

    class Meta:
        constraints = (models.UniqueConstraint(fields=("piece", "copy", "step"), name="one_timer_a_step"),)


class Entry(models.Model):
    """One line of the log: what happened to a piece, never changed. `sort` is what kind of thing it was,
    `title` the step it happened at, `operation` its kind of work; `data` what else is known of it, `sought`
    what is searched. `token` is the page's own name for it: one that is sent twice is kept once."""

    piece = models.ForeignKey(PieceRow, on_delete=models.CASCADE, related_name="log")
    copy = models.PositiveSmallIntegerField(default=1)
    sort = models.CharField(max_length=12)
    step = models.CharField(max_length=LONGEST_KEY, blank=True, default="")
    title = models.CharField(max_length=200, blank=True, default="")
    operation = models.CharField(max_length=20, blank=True, default="")
    says = models.TextField(max_length=LONGEST_SAID, blank=True, default="")
    minutes = models.FloatField(null=True)
    data = models.JSONField(default=dict)
    image = models.BinaryField(null=True)
    sought = models.TextField(blank=True, default="")
    token = models.CharField(max_length=40, blank=True, default="")
    at = models.DateTimeField()
    by = models.ForeignKey(MAKER, null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        ordering = ("-at", "-pk")
        indexes = (
            models.Index(fields=("piece", "-at"), name="log_of_a_piece"),
            models.Index(fields=("-at",), name="log_of_all"),
            models.Index(fields=("sort", "operation"), name="lessons_of_a_kind"),
        )
        constraints = (
            models.UniqueConstraint(
                fields=("piece", "token"), condition=~models.Q(token=""), name="sent_twice_kept_once"
            ),
        )
