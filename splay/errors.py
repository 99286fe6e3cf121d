"""What the core says when it cannot go on."""

from __future__ import annotations

from dataclasses import dataclass


class SplayError(Exception):
    """The family every error of the core belongs to."""


@dataclass(frozen=True)
class Fault:
    """One thing wrong with what was given.

    `field` is the dotted path in the document (``top.outline.diameter``), empty for the whole; `got` what
    stood there, shortened, empty for what is made of parts; `allowed` what may stand there, or a sentence
    on why it cannot; `do` the mend; `what` the thing it is about in the maker's words, empty where the
    field says it.
    """

    field: str
    got: str
    allowed: str
    do: str
    what: str = ""

    def said(self) -> str:
        """The fault in whole sentences, for beside its field."""
        if not self.allowed or self.allowed.endswith("."):
            return f"{self.allowed} {self.do}".strip()
        if not self.got:
            return f"Wanted: {self.allowed}. {self.do}"
        return f"Got {self.got}; wanted: {self.allowed}. {self.do}"

    def line(self) -> str:
        """The fault as one line for a terminal or a log."""
        said = self.said()
        return f"{self.what or self.field or 'the document'}: {said[:1].lower()}{said[1:]}"


def shorten(value: object, limit: int = 60) -> str:
    """A value as it was given, cut to `limit` characters so that a message stays readable."""
    text = value if isinstance(value, str) else repr(value)
    text = " ".join(text.split())
    if not text:
        return "nothing"
    return text if len(text) <= limit else text[: limit - 1] + "…"


class BadInput(SplayError, ValueError):
    """Something given cannot be read or lies outside what is possible; `faults` says where."""

    def __init__(self, *faults: Fault) -> None:
        self.faults = faults
        super().__init__("\n".join(fault.line() for fault in faults))


class CannotBuild(SplayError, ArithmeticError):
    """Each value is possible, together they break a rule of the work.

    `rule` says which, `mend` what would put it right, `field` where the maker can change it.
    """

    def __init__(self, rule: str, mend: str, field: str = "") -> None:
        self.rule, self.mend, self.field = rule, mend, field
        super().__init__(f"{rule} {mend}")
