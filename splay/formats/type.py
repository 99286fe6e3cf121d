"""The letters on paper: the program's own typeface, embedded, and what it can spell."""

from __future__ import annotations

from functools import lru_cache
from importlib import resources

from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont

PLAIN, BOLD = "Hyperlegible", "Hyperlegible-Bold"
_FILES = {PLAIN: "AtkinsonHyperlegibleNext-Regular.ttf", BOLD: "AtkinsonHyperlegibleNext-Bold.ttf"}
_SPELT = {
    "″": '"',
    "′": "'",
    "→": "to",
    "←": "from",
    "≤": "at most",
    "≥": "at least",
    "\u00a0": " ",
    "\u202f": " ",
    "\u2009": " ",
    "\t": " ",
    "\n": " ",
    "\r": " ",
}
"""Signs the typeface lacks, in letters that it has."""


@lru_cache(maxsize=1)
def fonts() -> frozenset[int]:
    """Make the typeface known once; every sign it has, by code point."""
    known: set[int] = set()
    for name, file in _FILES.items():
        with resources.as_file(resources.files("splay.formats") / "fonts" / file) as path:
            font = TTFont(name, str(path))
        pdfmetrics.registerFont(font)
        # The face is reportlab's own object; its stubs do not say what it holds.
        signs = frozenset(getattr(font.face, "charToGlyph", {}))
        known = set(signs) if not known else known & signs
    pdfmetrics.registerFontFamily(PLAIN, normal=PLAIN, bold=BOLD, italic=PLAIN, boldItalic=BOLD)
    return frozenset(known)


def spelt(said: str) -> str:
    """Words with nothing in them that the typeface cannot print: a sign it lacks is written in letters,
    and one there are no letters for as a question mark."""
    known = fonts()
    made = "".join(_SPELT.get(sign, sign) for sign in said)
    return "".join(sign if ord(sign) in known else "?" for sign in made)


def wide(said: str, size: float, bold: bool = False) -> float:
    """How wide words are, in the size's own unit."""
    fonts()
    return float(pdfmetrics.stringWidth(spelt(said), BOLD if bold else PLAIN, size))
