"""Add a maker to the shop, or give one a new password."""

import getpass
import sys
from typing import Any

from django.contrib.auth import get_user_model
from django.core.management.base import BaseCommand, CommandError, CommandParser

from splay.errors import BadInput
from workshop.accounts import makers


class Command(BaseCommand):
    """Asks for the password twice; reads one line where there is no terminal."""

    help = __doc__ or ""
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        """The maker's name."""
        parser.add_argument("name")
        parser.add_argument(
            "--new-password", action="store_true", help="the maker is known: replace the password"
        )

    def handle(self, *args: Any, name: str, new_password: bool, **options: Any) -> None:
        """Make the account; change its password only when that is meant."""
        known = get_user_model().objects.filter(username=name).first()
        if known and known.has_usable_password() and not (new_password or _meant(name)):
            raise CommandError(
                f"There is a {name} already, whose password stays. Choose another name, or say "
                "--new-password to replace it."
            )
        password = _ask() if sys.stdin.isatty() else sys.stdin.readline().rstrip("\n")
        try:
            if known and known.is_active:
                makers.give_password(known, password)
            else:
                makers.add(name, password)
        except BadInput as bad:
            raise CommandError(bad.faults[0].allowed) from None
        self.stdout.write(f"{name} {'has a new password' if known else 'may now sign in'}.")


def _meant(name: str) -> bool:
    """Whether an existing maker's password is to be replaced, where there is somebody to ask."""
    if not sys.stdin.isatty():
        return False
    return input(f"There is a {name} already. Replace the password? yes or no: ").strip() == "yes"


def _ask() -> str:
    password = getpass.getpass("Password: ")
    if password != getpass.getpass("Once more: "):
        raise CommandError("The two were not the same. Nothing was changed.")
    return password
