"""Puts small faults into the program, one at a time, and prints those no test notices.

    python tools/mutants.py [how many] [seed]

First the suite's core and API run once under coverage, so that it is known which tests walk over which
line (kept in build/mutants until a file of the program is newer). Then each fault of a seeded sample is put
into a copy of the tree and the tests that walk over its line are run until one fails. What none of them
notices is shown to what compares everything with what it was, and in the workshop to the real server's
tests. Two at a time, each in a tree of its own.
"""

from __future__ import annotations

import ast
import os
import random
import re
import shutil
import subprocess
import sys
import tempfile
from collections import Counter
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from queue import SimpleQueue

from coverage import CoverageData

ROOT = Path(__file__).resolve().parent.parent
WORK = ROOT / "build" / "mutants"
TREES, DATA = [WORK / "tree-1", WORK / "tree-2"], WORK / "coverage"
COPIED = ("splay", "workshop", "tests", "tools", "docs", "web/dist", "web/src/api")
ROOMS = ("splay", "workshop")
TESTS = ("tests.core", "tests.api")
MOST_TESTS = 60
"""Of the tests that walk over a line, asked at first: half are those that walk over most of its file, half
come by chance. The others are asked where nobody noticed."""
APPROVED = ["tests.api.test_demo_answers", "tests.api.test_schema"]
"""What compares everything with what it was: asked where none of the others noticed."""
APPROVED_OF_CORE = ["tests.core.test_approved"]
"""The same of the core, which knows nothing of the workshop."""
COMMANDS = [f"tests.api.test_{name}" for name in ("backup", "commands", "folder", "archive")]
"""What runs the program's own commands, some as processes of their own, of which no coverage is taken."""
SERVER = ["tests.server"]
"""Asked last: no coverage is taken of a server of its own."""
LONGEST_S, OUT_OF_TIME = 600, -99
SIZES = "workshop's sizes and times"
"""Not tried: how long or how large something may be is somebody's choice, and another is as good."""
RUN = "how the workshop is run"
"""What its server, its settings and its commands are set to; the rest of it is access, conflict and
counting, and is counted for itself."""
RUN_FILES = re.compile(r"workshop/(settings|worker|warm|urls|wsgi|folder)\.py|workshop/.*/management/")
_OPERATORS = {
    ast.Lt: ("<", ">="), ast.LtE: ("<=", ">"), ast.Gt: (">", "<="), ast.GtE: (">=", "<"),
    ast.Eq: ("==", "!="), ast.NotEq: ("!=", "=="), ast.In: ("in", "not in"), ast.NotIn: ("not in", "in"),
    ast.Is: ("is", "is not"), ast.IsNot: ("is not", "is"),
    ast.Add: ("+", "-"), ast.Sub: ("-", "+"), ast.Mult: ("*", "/"), ast.Div: ("/", "*"),
    ast.And: ("and", "or"), ast.Or: ("or", "and"),
}  # fmt: skip
_NAMES = {"min": "max", "max": "min", "sin": "cos", "cos": "sin", "any": "all", "all": "any"}
_WORDS = (
    ("left", "right"), ("LEFT", "RIGHT"), ("front", "back"), ("FRONT", "BACK"), ("uphill", "downhill"),
    ("upper", "lower"), ("inner", "outer"), ("above", "below"), ("longer", "shorter"), ("long", "short"),
    ("towards", "away from"), ("clockwise", "anticlockwise"), ("first", "last"), ("before", "after"),
    ("face", "edge"), ("foot", "top"), ("start", "finish"), ("acute", "obtuse"), ("more", "less"),
)  # fmt: skip


@dataclass(frozen=True)
class Mutant:
    """One fault: where, what stands there, what is put in its place; `sort` of program it is in."""

    file: str
    line: int
    begins: int
    ends: int
    was: str
    becomes: str
    sort: str

    def __str__(self) -> str:
        return f"{self.file}:{self.line}  {self.was!r} -> {self.becomes!r}"


def mutants(path: Path) -> Iterator[Mutant]:
    """Every fault that could be put into one file."""
    text = path.read_text(encoding="utf-8")
    starts = [0]
    for row in text.splitlines(keepends=True):
        starts.append(starts[-1] + len(row.encode()))
    raw, name = text.encode(), str(path.relative_to(ROOT))
    logic = RUN if RUN_FILES.match(name) else name.partition("/")[0]
    logic = "figures and logic" if logic == "splay" else logic

    def swapped(node: ast.expr, first: ast.expr, second: ast.expr, by: ast.AST) -> Iterator[Mutant]:
        """Another operator between two expressions; brackets stand there too."""
        assert first.end_lineno is not None and first.end_col_offset is not None
        begins = starts[first.end_lineno - 1] + first.end_col_offset
        ends = starts[second.lineno - 1] + second.col_offset
        old, new = _OPERATORS[type(by)]
        was = raw[begins:ends].decode()
        found = re.search(rf"(?<![\w<>=!*/]){re.escape(old)}(?![\w<>=*/])", was)
        if found:
            made = was[: found.start()] + new + was[found.end() :]
            yield Mutant(name, node.lineno, begins, ends, was, made, logic)

    skipped = _said_only(ast.parse(text))
    long = _how_long(ast.parse(text)) if name.startswith("workshop") else set()
    for node in ast.walk(ast.parse(text)):
        if isinstance(node, ast.Compare) and len(node.ops) == 1:
            yield from swapped(node, node.left, node.comparators[0], node.ops[0])
        elif isinstance(node, ast.BinOp) and type(node.op) in _OPERATORS:
            yield from swapped(node, node.left, node.right, node.op)
        elif isinstance(node, ast.BoolOp):
            yield from swapped(node, node.values[0], node.values[1], node.op)
        elif isinstance(node, ast.Call):
            called = node.func
            named = called.attr if isinstance(called, ast.Attribute) else getattr(called, "id", "")
            if named in _NAMES and called.end_lineno is not None and called.end_col_offset is not None:
                end = starts[called.end_lineno - 1] + called.end_col_offset
                yield Mutant(name, node.lineno, end - len(named), end, named, _NAMES[named], logic)
        elif isinstance(node, ast.Constant) and (node.lineno, node.col_offset) not in skipped:
            yield from _constant(node, name, starts, raw, logic, long)


def _constant(
    node: ast.Constant, name: str, starts: list[int], raw: bytes, logic: str, long: set[tuple[int, int]]
) -> Iterator[Mutant]:
    assert node.end_lineno is not None and node.end_col_offset is not None
    span = (starts[node.lineno - 1] + node.col_offset, starts[node.end_lineno - 1] + node.end_col_offset)
    was = raw[slice(*span)].decode()
    if isinstance(node.value, bool):
        yield Mutant(name, node.lineno, *span, was, str(not node.value), logic)
    elif isinstance(node.value, int | float):
        more = node.value + 1 if isinstance(node.value, int) else node.value * 1.25 + 0.01
        sort = logic if (node.lineno, node.col_offset) not in long else SIZES
        yield Mutant(name, node.lineno, *span, was, repr(more), _sized(node.value, sort))
    elif isinstance(node.value, str) and name.startswith("splay") and " " in node.value:
        # What stands in braces within a sentence is program, not words.
        plain = re.sub(r"\{[^{}]*\}", lambda braces: "\0" * len(braces[0]), was)
        for pair in _WORDS:
            for old, new in (pair, pair[::-1]):
                found = re.search(rf"\b{old}\b", plain)
                if found:
                    made = was[: found.start()] + new + was[found.end() :]
                    yield Mutant(name, node.lineno, *span, was, made, "words")
                    return


def _sized(value: float, logic: str) -> str:
    """Of the workshop's numbers, those that count or are answered with go with its logic; the rest only say
    how long, how large, how often."""
    counts = isinstance(value, int) and (abs(value) <= 2 or 200 <= value < 600)
    return logic if logic == "figures and logic" or counts else SIZES


def _how_long(code: ast.AST) -> set[tuple[int, int]]:
    """Constants that say how much of something is kept: ends of slices, lengths of texts, what is called
    the most or the longest there may be."""
    found = [node.upper for node in ast.walk(code) if isinstance(node, ast.Slice)]
    found += [
        node.value
        for node in ast.walk(code)
        if isinstance(node, ast.Assign)
        and re.match("MOST|LONGEST|KEPT", getattr(node.targets[0], "id", ""))
    ]
    found += [
        node.value for node in ast.walk(code) if isinstance(node, ast.keyword) and node.arg == "max_length"
    ]
    return {
        (one.lineno, one.col_offset)
        for one in found
        if isinstance(one, ast.Constant) and isinstance(one.value, int) and one.value > 2
    }


def _said_only(code: ast.AST) -> set[tuple[int, int]]:
    """Constants that do nothing: docstrings, the lines under names, types, what a class or a cache is
    declared as (frozen, so large), and what only asserts (that two lists are equally long)."""
    found: set[tuple[int, int]] = set()
    for node in ast.walk(code):
        still = []
        for how in getattr(node, "decorator_list", ()):
            if isinstance(how, ast.Call) and getattr(how.func, "id", "") in ("dataclass", "lru_cache"):
                still += [one for one in ast.walk(how) if isinstance(one, ast.Constant)]
        if isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant):
            still.append(node.value)
        if isinstance(node, ast.keyword) and node.arg == "strict" and isinstance(node.value, ast.Constant):
            still.append(node.value)
        for held in ("annotation", "returns"):
            if isinstance(inside := getattr(node, held, None), ast.expr):
                still += [one for one in ast.walk(inside) if isinstance(one, ast.Constant)]
        found |= {(one.lineno, one.col_offset) for one in still}
    return found


def covered() -> CoverageData:
    """Which tests walk over which line; worked out anew where the program is newer."""
    newest = max(path.stat().st_mtime for room in (*ROOMS, "tests") for path in (ROOT / room).rglob("*.py"))
    if not DATA.exists() or DATA.stat().st_mtime < newest:
        WORK.mkdir(parents=True, exist_ok=True)
        print("Running the tests once to see what they walk over ...", flush=True)
        with ThreadPoolExecutor(len(TESTS)) as both:
            parts = list(both.map(_walk, TESTS))
        whole = CoverageData(basename=str(DATA))
        whole.erase()
        for part in parts:
            whole.update(part)
        whole.write()
    data = CoverageData(basename=str(DATA))
    data.read()
    return data


def _walk(package: str) -> CoverageData:
    """What one package of tests walks over, test by test."""
    held = DATA.with_name(f"{DATA.name}-{package}")
    rules = held.with_name(f"{held.name}.rc")
    rules.write_text(
        f"[run]\nsource = {','.join(ROOMS)}\ndynamic_context = test_function\ndata_file = {held}\n",
        encoding="utf-8",
    )
    if _tests(ROOT, ["-m", "coverage", "run", f"--rcfile={rules}"], [package], 3600):
        sys.exit(f"{package} fails, or never ends, with no fault put in.")
    data = CoverageData(basename=str(held))
    data.read()
    return data


def _tests(tree: Path, run: list[str], names: list[str], longest: float) -> int:
    """How a run of tests in a tree ends: 0 where all passed, OUT_OF_TIME where it did not end."""
    words = [sys.executable, *run, "manage.py", "test", *names]
    words += ["--settings", "workshop.test_settings", "--noinput", "--failfast"]
    words += ["--exclude-tag", "long"]
    with tempfile.TemporaryDirectory() as data:
        surroundings = {**os.environ, "PROUD_RAKE_DATA": data, "PYTHONDONTWRITEBYTECODE": "1"}
        try:
            done = subprocess.run(words, cwd=tree, env=surroundings, capture_output=True, timeout=longest)
        except subprocess.TimeoutExpired:
            return OUT_OF_TIME
        return done.returncode


def walked(data: CoverageData, mutant: Mutant, rng: random.Random) -> list[str]:
    """The tests that walk over a fault's line, those first that are asked first; over its file, where the
    line is read in but once."""
    lines = data.contexts_by_lineno(str(ROOT / mutant.file))
    here = {name for name in lines.get(mutant.line, ()) if name}
    if not here:
        here = {name for names in lines.values() for name in names if name}
    often = Counter(name for names in lines.values() for name in names)
    closest = sorted(here, key=lambda name: (-often[name], name))
    chosen, rest = closest[: MOST_TESTS // 2], closest[MOST_TESTS // 2 :]
    return [*chosen, *rng.sample(rest, len(rest))]


def noticed(mutant: Mutant, tests: list[str], tree: Path) -> bool:
    """Whether a test fails, or never ends, with the fault in place."""
    there = tree / mutant.file
    whole = there.read_bytes()
    there.write_bytes(whole[: mutant.begins] + mutant.becomes.encode() + whole[mutant.ends :])
    asked = [tests[:MOST_TESTS], APPROVED, tests[MOST_TESTS:]]
    if mutant.file.startswith("splay"):
        asked.insert(1, APPROVED_OF_CORE)
    else:
        asked += [COMMANDS, SERVER] if "keeping" in mutant.file or "commands" in mutant.file else [SERVER]
    try:
        for names in filter(None, asked):
            if ended := _tests(tree, [], names, LONGEST_S):
                if ended == OUT_OF_TIME:
                    print(f"NEVER ENDS  {mutant}", flush=True)
                return True
        return False
    finally:
        there.write_bytes(whole)


def _copied(tree: Path) -> None:
    """A tree to put faults into; with none in it, every test that is always asked passes."""
    shutil.rmtree(tree, ignore_errors=True)
    for room in COPIED:
        shutil.copytree(ROOT / room, tree / room, ignore=shutil.ignore_patterns("__pycache__"))
    shutil.copy(ROOT / "manage.py", tree)
    # What the real server's tests start from, and where they write what it says.
    (tree / ".venv").symlink_to(ROOT / ".venv")
    (tree / "build").mkdir()
    if _tests(tree, [], [*APPROVED_OF_CORE, *APPROVED], LONGEST_S):
        sys.exit("What is approved is not what there is: make approve first, or every fault is noticed.")
    if _tests(tree, [], SERVER, LONGEST_S):
        sys.exit("The real server's tests fail with no fault put in.")


def main(many: int = 60, seed: int = 1) -> None:
    """A sample, spread evenly over the sorts of program, one of each after the other."""
    data = covered()
    free = SimpleQueue[Path]()
    with ThreadPoolExecutor(len(TREES)) as both:
        list(both.map(_copied, TREES))
    for tree in TREES:
        free.put(tree)
    rng = random.Random(seed)
    sorts: dict[str, list[Mutant]] = {}
    for room in ROOMS:
        for path in sorted((ROOT / room).rglob("*.py")):
            if "migrations" not in path.parts and "demo" not in path.parts:
                for one in mutants(path):
                    if one.sort != SIZES:
                        sorts.setdefault(one.sort, []).append(one)
    tried, dead = Counter[str](), Counter[str]()

    def tried_out(mutant: Mutant, tests: list[str]) -> None:
        tree = free.get()
        try:
            dies = noticed(mutant, tests, tree)
        finally:
            free.put(tree)
        tried[mutant.sort] += 1
        dead[mutant.sort] += dies
        if not dies:
            print(f"LIVES  {mutant}  ({len(tests)} tests walk over it)", flush=True)
        print(f"{mutant.sort}: {dead[mutant.sort]} of {tried[mutant.sort]} noticed", flush=True)

    samples = [rng.sample(every, many // len(sorts)) for every in sorts.values()]
    chosen = [one for row in zip(*samples, strict=True) for one in row]
    with ThreadPoolExecutor(len(TREES)) as side_by_side:
        list(side_by_side.map(tried_out, chosen, [walked(data, one, rng) for one in chosen]))
    for sort, total in tried.items():
        print(f"{sort:20} {dead[sort]:4} of {total} noticed  ({len(sorts[sort])} there could be)")


if __name__ == "__main__":
    main(*(int(word) for word in sys.argv[1:3]))
