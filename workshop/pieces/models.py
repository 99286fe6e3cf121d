"""Rows of pieces, their revisions and readings."""

import uuid

from django.conf import settings
from django.db import models

LONGEST_PROOF = 80
LONGEST_CALLED = 120
BIN_NIGHTS = 30
"""Nights a piece that was taken off the rack can be hung up again."""
MAKER = settings.AUTH_USER_MODEL


class PieceRow(models.Model):
    """One piece on the rack; what was chosen stands in its revisions. `hung` is what the rack says of it
    and `drawn` its picture there, `hung_for` what both were worked out from. `turn` counts up over all
    pieces at each change: what hangs first follows from it and from no clock. `kept` is for its maker's
    eyes. One that was `removed` can be hung up again for some nights; one is `finished` since its maker
    said so."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    latest = models.PositiveIntegerField(default=0)
    changed = models.DateTimeField(auto_now=True)
    made = models.DateTimeField(auto_now_add=True)
    hung = models.JSONField(null=True)
    drawn = models.JSONField(null=True)
    hung_for = models.CharField(max_length=64, default="")
    turn = models.PositiveBigIntegerField(default=0)
    made_by = models.ForeignKey(MAKER, null=True, on_delete=models.SET_NULL, related_name="made")
    kept = models.BooleanField(default=False)
    removed = models.DateTimeField(null=True)
    removed_by = models.ForeignKey(MAKER, null=True, on_delete=models.SET_NULL, related_name="+")
    finished = models.DateTimeField(null=True)
    nights = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ("-turn", "-changed")


class PiecePhoto(models.Model):
    """The photograph a drawn outline is drawn over: a plain JPEG, as small as it can be drawn over."""

    piece = models.OneToOneField(PieceRow, on_delete=models.CASCADE, related_name="photo")
    image = models.BinaryField()
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    taken = models.DateTimeField(auto_now=True)
    by = models.ForeignKey(MAKER, null=True, on_delete=models.SET_NULL, related_name="+")


class Revision(models.Model):
    """One saved state of a piece; never changed, never thrown away while the piece is kept. `called` is a
    name it was given."""

    piece = models.ForeignKey(PieceRow, on_delete=models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    document = models.JSONField()
    called = models.CharField(max_length=60, blank=True, default="")
    saved = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL)

    class Meta:
        ordering = ("number",)
        constraints = (models.UniqueConstraint(fields=("piece", "number"), name="one_of_a_number"),)


class ReadingRow(models.Model):
    """The answer to one proof of a piece, taken on one `copy` of it where several are made: of some
    `kind`, the value in mm or degrees and the text as typed, with what and a note; `expected` is what the
    plan expected when it was read, `number` counts up over the piece's answers: which one somebody saw. An
    angle keeps how its scale read then: what it shows `at_square`, which way it `counts`, and whose scale
    it was."""

    piece = models.ForeignKey(PieceRow, on_delete=models.CASCADE, related_name="readings")
    proof = models.CharField(max_length=LONGEST_PROOF)
    copy = models.PositiveSmallIntegerField(default=1)
    kind = models.CharField(max_length=20)
    value = models.FloatField()
    typed = models.CharField(max_length=40)
    expected = models.FloatField(null=True)
    tool = models.CharField(max_length=60, blank=True, default="")
    note = models.CharField(max_length=400, blank=True, default="")
    sure = models.BooleanField(default=False)
    number = models.PositiveIntegerField(default=0)
    at_square = models.FloatField(null=True)
    counts = models.CharField(max_length=4, blank=True, default="")
    gauge = models.CharField(max_length=60, blank=True, default="")
    taken = models.DateTimeField(auto_now=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL)

    class Meta:
        ordering = ("proof",)
        constraints = (
            models.UniqueConstraint(fields=("piece", "proof", "copy"), name="one_a_proof_and_copy"),
        )


class ReadingEvent(models.Model):
    """What was once said of a proof, on one copy of the piece: answered, corrected or withdrawn; never
    changed. `called` is what it was taken of, in the words of then."""

    piece = models.ForeignKey(PieceRow, on_delete=models.CASCADE, related_name="reading_events")
    proof = models.CharField(max_length=LONGEST_PROOF)
    copy = models.PositiveSmallIntegerField(default=1)
    what = models.CharField(max_length=10)
    called = models.CharField(max_length=LONGEST_CALLED, blank=True, default="")
    value = models.FloatField(null=True)
    typed = models.CharField(max_length=40, blank=True)
    tool = models.CharField(max_length=60, blank=True)
    note = models.CharField(max_length=400, blank=True)
    at = models.DateTimeField(auto_now_add=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL)

    class Meta:
        ordering = ("-pk",)
        indexes = (models.Index(fields=("piece", "proof"), name="history_of_a_proof"),)
