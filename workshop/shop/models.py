"""The row of the shop: an installation has one."""

from django.conf import settings
from django.contrib.auth.models import AnonymousUser, User
from django.db import models

from splay.shop import Shop, read_shop, workbench, write_shop


class ShopRow(models.Model):
    """The shop's document, and who changed it last."""

    document = models.JSONField()
    changed = models.DateTimeField(auto_now=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")


def the_shop() -> Shop:
    """The shop as it is kept, or the one to start from."""
    row = ShopRow.objects.filter(pk=1).first()
    return read_shop(row.document) if row else workbench()


def keep_shop(shop: Shop, maker: User | AnonymousUser | None = None) -> Shop:
    """Keep the shop as this maker has it."""
    by = maker if isinstance(maker, User) else None
    ShopRow.objects.update_or_create(pk=1, defaults={"document": write_shop(shop), "by": by})
    return shop
