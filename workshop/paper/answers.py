"""What is asked of the sheets and files of a piece, and what is said of them."""

from __future__ import annotations

from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from workshop.sent import FIRST, Copy

Some = Annotated[str, Field(max_length=800)]


class Wished(Schema):
    """What is wished besides: which copy; the day as it is to stand on the sheet; the tools used last, and
    sorts of patterns, by their ids with commas; one pattern by its id; the paper, where it is not the
    printer's own."""

    copy_number: Copy = FIRST
    day: Annotated[str, Field(max_length=40)] = ""
    tools: Some = ""
    sorts: Some = ""
    pattern: Annotated[str, Field(max_length=120)] = ""
    paper: Literal["", "a4", "letter"] = ""


class OutOut(Schema):
    """One thing that goes out: its name in the address, its group, what it is good for, what it cannot
    carry; how many pages it has, None where it has none."""

    name: str
    group: str
    title: str
    called: str
    good_for: str
    without: str
    pages: int | None


class PatternOut(Schema):
    """One pattern: its sort, what it is, how it is used, its size in the maker's units, how many sheets it
    takes alone."""

    id: str
    sort: str
    title: str
    told: list[str]
    size: str
    pages: int


class PaperOut(Schema):
    """All that can be printed or taken out of a piece: `sorts` what patterns there are and what each sort
    is called, `pattern_pages` the sheets of those that are wished, `code` the address in the bench sheet's
    code, empty where no other device could open it."""

    outs: list[OutOut]
    patterns: list[PatternOut]
    sorts: dict[str, str]
    pattern_pages: int
    code: str
