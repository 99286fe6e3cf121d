"""Ids that stay: what can be added, moved or taken away is named in its document for good."""

from __future__ import annotations

from collections.abc import Iterable
from hashlib import sha256
from typing import Annotated, Any

from pydantic import Field

Id = Annotated[str, Field(pattern=r"^[a-z][a-z0-9]{0,11}$")]
"""A name that stays: a small letter, then small letters and figures; given where it is missing."""
_SALTED = 8


class Ids:
    """Hands out ids that a document does not hold yet, and knows those given to something.

    `found` are all there are. New ones count on from the highest; with a `salt` that is never used twice
    they are ones that nothing ever had.
    """

    def __init__(self, found: Iterable[str], salt: str = "") -> None:
        self._salt = salt
        self._highest: dict[str, int] = {}
        self._held: set[str] = set()
        for id in found:
            number = id[1:]
            if number.isdecimal():
                self._highest[id[0]] = max(self._highest.get(id[0], 0), int(number))

    def fresh(self, letter: str) -> str:
        """The next id of its kind."""
        self._highest[letter] = self._highest.get(letter, 0) + 1
        if not self._salt:
            return f"{letter}{self._highest[letter]}"
        mixed = sha256(f"{self._salt}.{letter}.{self._highest[letter]}".encode())
        return letter + mixed.hexdigest()[:_SALTED]

    def own(self, id: object, letter: str) -> Any:
        """`id` itself where it is one and nothing else holds it, else a fresh one."""
        if not id or (isinstance(id, str) and id in self._held):
            id = self.fresh(letter)
        if isinstance(id, str):
            self._held.add(id)
        return id
