"""Ask the advisory sources whether anything that ships is known to be unsafe. Says so where no source can
be reached: silence is no answer. Exit status 1 where something was found, 2 where nobody could be asked."""

from __future__ import annotations

import json
import subprocess
import sys
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parent.parent


def python() -> list[str] | None:
    """What is known of the server's packages; None where nobody could be asked."""
    words = [
        "-r",
        str(ROOT / "requirements/run.txt"),
        "--disable-pip",
        "-f",
        "json",
        "--progress-spinner",
        "off",
    ]
    said = _json([str(ROOT / ".venv/bin/pip-audit"), *words])
    if said is None or all("skip_reason" in one for one in said["dependencies"]):
        return None
    return [
        f"{one['name']} {one['version']}: {', '.join(v['id'] for v in one['vulns'])}"
        for one in said["dependencies"]
        if one.get("vulns")
    ]


def page() -> list[str] | None:
    """What is known of the page's packages; None where nobody could be asked."""
    said = _json(["npm", "audit", "--json", "--omit=dev", "--prefix", str(ROOT / "web")])
    if said is None or "vulnerabilities" not in said:
        return None
    return [f"{name}: {about['severity']}" for name, about in said["vulnerabilities"].items()]


def _json(words: list[str]) -> Any:
    try:
        ran = subprocess.run(words, capture_output=True, text=True, timeout=180)
        return json.loads(ran.stdout)
    except (OSError, ValueError, subprocess.TimeoutExpired):
        return None


def main() -> int:
    """Ask both and tell."""
    worst = 0
    for what, found in (("the server's packages", python()), ("the page's packages", page())):
        if found is None:
            print(f"Of {what} nothing is known: no advisory source can be reached from here.")
            worst = max(worst, 2)
        elif found:
            print(f"Known of {what}:", *found, sep="\n  ")
            worst = 1
        else:
            print(f"Nothing is known against {what}.")
    return worst


if __name__ == "__main__":
    sys.exit(main())
