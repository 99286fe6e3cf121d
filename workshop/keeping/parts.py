"""The files of an archive, each read within its bounds; what no archive of this program has is refused."""

from __future__ import annotations

import json
import zipfile
from typing import Any

from workshop.keeping.archive import ABOUT
from workshop.keeping.backup import EARLIER, FORMAT, FORMAT_VERSION

MOST_UNPACKED = 200_000_000
"""Bytes one file of an archive may unfold into."""
MOST_IN_ALL = 4_000_000_000
"""And all that is read of it together."""
MOST_FILES = 50_000


class NotAnArchive(Exception):
    """What is wrong with an archive, in plain words."""


class TooMuch(NotAnArchive):
    """It unfolds into more than any shop has: nothing of it is read."""


class Parts:
    """The files of an archive, each read within its bounds."""

    def __init__(self, archive: zipfile.ZipFile) -> None:
        self.archive, self.left = archive, MOST_IN_ALL
        infos = archive.infolist()
        self.names = {info.filename for info in infos}
        if len(infos) > MOST_FILES:
            raise NotAnArchive(f"There are {len(infos)} files in it; no shop has so many.")
        if len(self.names) != len(infos):
            raise NotAnArchive("Two files in it have the same name.")
        for name in self.names:
            if name.startswith("/") or "\\" in name or ".." in name.split("/") or ":" in name:
                raise NotAnArchive(
                    f"A file in it is called {name[:80]}: no archive of this program has such."
                )
            if name.lower().endswith(".zip"):
                raise NotAnArchive(f"There is an archive in it ({name[:80]}): unpack it first.")
        about = self.json(ABOUT)
        if not isinstance(about, dict) or about.get("format") not in (FORMAT, EARLIER[0]):
            raise NotAnArchive("It is no archive of this program.")
        version = about.get("version")
        if about["format"] == EARLIER[0]:
            raise NotAnArchive("It is a backup of an earlier program, without open files: restore it.")
        if not isinstance(version, int) or not 1 <= version <= FORMAT_VERSION:
            raise NotAnArchive(
                f"It is of version {str(version)[:20]}: a later program made it. Use that one."
            )

    def raw(self, name: str) -> bytes:
        """One file; NotAnArchive where it is larger than it can be, whatever it says of itself."""
        with self.archive.open(name) as opened:
            read = opened.read(MOST_UNPACKED + 1)
        self.left -= len(read)
        if len(read) > MOST_UNPACKED or self.left < 0:
            raise TooMuch(f"{name} in it unfolds into more than a piece can be.")
        return read

    def json(self, name: str) -> Any:
        """One file of JSON."""
        try:
            return json.loads(self.raw(name))
        except (ValueError, RecursionError) as error:
            raise NotAnArchive(f"{name} in it is no whole JSON: {str(error)[:120]}") from None
