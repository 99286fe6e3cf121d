"""Where makers are signed in, beside the sessions themselves."""

from django.conf import settings
from django.db import models


class SignedIn(models.Model):
    """One browser in which a maker is signed in. `nights` counts the nights since it was last used, so
    that no wrong clock ends it."""

    session = models.CharField(max_length=40, unique=True)
    maker = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="signed_in")
    since = models.DateTimeField(auto_now_add=True)
    seen = models.DateTimeField(auto_now_add=True)
    nights = models.PositiveIntegerField(default=0)
    browser = models.CharField(max_length=200, blank=True, default="")
    address = models.CharField(max_length=60, blank=True, default="")

    class Meta:
        ordering = ("-pk",)
