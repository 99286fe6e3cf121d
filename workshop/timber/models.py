"""Rows of the timber store, and of the wood of pieces."""

import uuid

from django.conf import settings
from django.db import models

from workshop.pieces.models import PieceRow

MAKER = settings.AUTH_USER_MODEL


class StockRow(models.Model):
    """One piece of wood; `number` counts its changes. It is reserved whole for a piece, and `gone` once
    that was sawn from it or it was thrown out; what was left of it names it as `cut_from`."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    document = models.JSONField()
    number = models.PositiveIntegerField(default=1)
    changed = models.DateTimeField(auto_now=True)
    made = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(MAKER, null=True, on_delete=models.SET_NULL, related_name="+")
    reserved_for = models.ForeignKey(PieceRow, null=True, on_delete=models.SET_NULL, related_name="stock")
    gone = models.CharField(max_length=8, default="", blank=True)
    cut_from = models.ForeignKey("self", null=True, on_delete=models.SET_NULL, related_name="left")

    class Meta:
        ordering = ("made", "pk")
        indexes = (models.Index(fields=("gone", "made"), name="what_is_there"),)


class StockPhoto(models.Model):
    """The photograph a slab's outline is drawn over: a plain JPEG."""

    stock = models.OneToOneField(StockRow, on_delete=models.CASCADE, related_name="photo")
    image = models.BinaryField()
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    taken = models.DateTimeField(auto_now=True)


class WoodRow(models.Model):
    """What a maker chose about the wood of one piece (`document`, `number` counts its changes); `found` the
    layout last worked out with what it was worked out for, `kept` the one that is reserved; `sawn` the
    stock of it that was sawn; `said` what became of a reservation."""

    piece = models.OneToOneField(PieceRow, on_delete=models.CASCADE, related_name="wood")
    document = models.JSONField(default=dict)
    number = models.PositiveIntegerField(default=0)
    found = models.JSONField(null=True)
    kept = models.JSONField(null=True)
    sawn = models.JSONField(default=list)
    said = models.CharField(max_length=400, default="", blank=True)
    changed = models.DateTimeField(auto_now=True)
