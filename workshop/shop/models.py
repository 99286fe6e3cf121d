"""The row of the shop: an installation has one."""

from django.db import models

from splay.shop import Shop, read_shop, workbench, write_shop


class ShopRow(models.Model):
    """The shop's document."""

    document = models.JSONField()
    changed = models.DateTimeField(auto_now=True)


def the_shop() -> Shop:
    """The shop as it is kept, or the one to start from."""
    row = ShopRow.objects.filter(pk=1).first()
    return read_shop(row.document) if row else workbench()


def keep_shop(shop: Shop) -> Shop:
    """Keep the shop."""
    ShopRow.objects.update_or_create(pk=1, defaults={"document": write_shop(shop)})
    return shop
