"""Write docs/licences.md: everything that ships with the program, and under which licence. --check only
compares. Python's from the installed packages' own metadata, the page's from its lock file."""

from __future__ import annotations

import json
import re
import sys
from importlib.metadata import metadata
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
HEAD = """# What ships with it, and under which licence

Written by `tools/licences.py` from the packages themselves; `make lint` sees that it is true. The
licences' own texts lie beside each Python package, and for what is in the page's build (fonts among it)
in `licences/` of the build. What a package of the page brings along is listed with it, used or not.

"""


def _python() -> list[tuple[str, str, str]]:
    named = re.findall(r"^([\w.-]+)==(\S+)", (ROOT / "requirements/run.txt").read_text(), re.M)
    return [(name, version, _licence(name)) for name, version in named]


def _licence(name: str) -> str:
    said = metadata(name)
    plain = said.get("License-Expression") or ""
    if not plain:
        classes = [c.split(" :: ")[-1] for c in said.get_all("Classifier") or [] if c.startswith("License")]
        plain = ", ".join(c for c in classes if c != "OSI Approved")
    # Some put the licence's whole text there.
    return plain or (said.get("License") or "not said").splitlines()[0][:60]


def _page() -> list[tuple[str, str, str]]:
    lock = json.loads((ROOT / "web/package-lock.json").read_text())["packages"]
    shipped = {
        path: about
        for path, about in lock.items()
        if path.startswith("node_modules/") and not about.get("dev") and not about.get("optional")
    }
    return [
        (path.rpartition("node_modules/")[2], about["version"], str(about.get("license", "not said")))
        for path, about in shipped.items()
        if not about.get("peer")
    ]


def written() -> str:
    """The list as it should stand in docs/."""
    parts = [HEAD]
    for title, rows in (("The server (Python)", _python()), ("The page (its build)", _page())):
        parts += [f"## {title}\n", "| package | version | licence |", "|---|---|---|"]
        parts += [f"| {name} | {version} | {licence} |" for name, version, licence in sorted(rows)]
        parts.append("")
    return "\n".join(parts)


def main(check: bool) -> int:
    """Write it, or say that it is out of date."""
    file = ROOT / "docs/licences.md"
    text = written()
    if check:
        stale = not file.exists() or file.read_text(encoding="utf-8") != text
        if stale:
            print("Out of date: docs/licences.md. Run: tools/licences.py")
        return int(stale)
    file.write_text(text, encoding="utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main("--check" in sys.argv))
