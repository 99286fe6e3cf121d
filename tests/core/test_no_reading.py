"""No decision is read back out of a word, a title or an id: what the core knows it keeps as data."""

from __future__ import annotations

import ast
from collections.abc import Iterator
from pathlib import Path

from django.test import SimpleTestCase

import splay

CORE = Path(splay.__file__).parent
TAKES_APART = {
    "split", "rsplit", "splitlines", "partition", "rpartition", "startswith", "endswith",
    "removeprefix", "removesuffix",
}  # fmt: skip
READERS = {
    "paths.py": "dotted paths into a document",
    "errors.py": "a fault's own sentence",
    "document.py": "what was typed, made plain",
    "labelled.py": "a schema's own references, places in a list written in the code",
    "quantity/read.py": "what was typed",
    "quantity/show.py": "figures as they are written",
    "reading.py": "what was typed",
    "instruments.py": "the line an instrument sends",
    "timber/table.py": "a table brought in",
    "piece/upgrade.py": "what earlier versions wrote",
    "build/hours.py": "lines the maker typed",
    "build/order.py": "lines the maker typed",
    "piece/lines.py": "lines the maker typed",
    "build/rule.py": "lists written in the code itself",
    "work/phrases.py": "names put into a sentence",
}
"""The rooms where text comes in from outside or goes out, and what text that is."""


def takes_apart(code: ast.AST) -> Iterator[int]:
    """Lines at which text is taken apart, or searched for a pattern or a word."""
    for node in ast.walk(code):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute):
            if node.func.attr in TAKES_APART:
                yield node.lineno
        elif isinstance(node, ast.Import):
            if any(name.name == "re" for name in node.names):
                yield node.lineno
        elif isinstance(node, ast.Compare) and isinstance(node.left, ast.Constant):
            inside = isinstance(node.ops[0], ast.In | ast.NotIn)
            read = isinstance(node.comparators[0], ast.Attribute) and node.comparators[0].attr in WORDS
            if inside and read and isinstance(node.left.value, str):
                yield node.lineno


WORDS = {"text", "title", "label", "name", "how", "what", "words", "id", "key", "note", "said", "tool"}
"""Fields that hold words or ids."""


class NothingIsReadBack(SimpleTestCase):
    def test_no_word_or_id_of_the_core_is_taken_apart(self) -> None:
        found = [
            f"{path.relative_to(CORE)}:{line}"
            for path in sorted(CORE.rglob("*.py"))
            if str(path.relative_to(CORE)) not in READERS and path.relative_to(CORE).parts[0] != "formats"
            for line in takes_apart(ast.parse(path.read_text(encoding="utf-8")))
        ]
        self.assertEqual(found, [], "keep it as data where it is made; do not read it back out of text")

    def test_every_room_that_reads_text_is_there_and_does(self) -> None:
        for room in READERS:
            code = ast.parse((CORE / room).read_text(encoding="utf-8"))
            self.assertTrue(
                list(takes_apart(code)), f"{room} reads nothing any more: strike it from the list"
            )

    def test_it_is_found(self) -> None:
        for said in (
            "kind = id.split('.')[0]",
            "if title.startswith('Bore'): pass",
            "import re",
            "if 'middle' in card.title: pass",
        ):
            self.assertTrue(list(takes_apart(ast.parse(said))), said)
