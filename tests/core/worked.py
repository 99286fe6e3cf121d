"""A reader of the formulas printed under "why?": it knows arithmetic and a figure's own inputs, no more."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping

from splay.quantity import Figure

_FUNCTIONS = {
    "sin": lambda x: math.sin(math.radians(x)),
    "cos": lambda x: math.cos(math.radians(x)),
    "tan": lambda x: math.tan(math.radians(x)),
    "cot": lambda x: 1.0 / math.tan(math.radians(x)),
}
_NUMBER = re.compile(r"\d+(?:\.\d+)?(?:°| mm)?")
_SPACE = re.compile(r"\s+")


class Unread(Exception):
    """What stands there is no arithmetic of the inputs."""


class _Reader:
    """One expression, from left to right; angles are degrees."""

    def __init__(self, text: str, values: Mapping[str, float]) -> None:
        self.text, self.at = text, 0
        self.values = sorted(values.items(), key=lambda one: -len(one[0]))

    def take(self, *signs: str) -> str:
        """The sign that comes next, if it is one of these."""
        if space := _SPACE.match(self.text, self.at):
            self.at = space.end()
        for sign in signs:
            if self.text.startswith(sign, self.at):
                self.at += len(sign)
                return sign
        return ""

    def whole(self) -> float:
        """All of it."""
        if first := self.take("the larger of ", "least of "):
            one, two = self.sum(), 0.0
            if not self.take("and"):
                raise Unread
            two = self.sum()
            value = max(one, two) if first == "the larger of " else min(one, two)
        else:
            value = self.sum()
        self.take(" ")
        if self.at < len(self.text):
            raise Unread
        return value

    def sum(self) -> float:
        value = self.product()
        while sign := self.take("+", "−"):
            other = self.product()
            value = value + other if sign == "+" else value - other
        return value

    def product(self) -> float:
        value = self.power()
        while sign := self.take("·", "×", "/"):
            other = self.power()
            value = value * other if sign != "/" else value / other if other else math.inf
        return value

    def power(self) -> float:
        value = self.one()
        return value * value if self.take("²") else value

    def one(self) -> float:
        if self.take("("):
            return self.closed(")")
        if self.take("|"):
            return abs(self.closed("|"))
        if self.take("√"):
            return math.sqrt(max(0.0, self.one()))
        for name, value in self.values:
            end = self.at + len(name)
            if self.take(name) and not (self.text[end : end + 1].isalpha() and name[-1].isalpha()):
                return value
            self.at = min(self.at, end - len(name)) if self.at == end else self.at
        for name, function in _FUNCTIONS.items():
            if self.take(f"{name}² "):
                return function(self.one()) ** 2
            if self.take(f"{name} "):
                return function(self.one())
        if self.take("π"):
            return math.pi
        self.take("")
        if number := _NUMBER.match(self.text, self.at):
            self.at = number.end()
            return float(number.group().rstrip("° m"))
        raise Unread

    def closed(self, by: str) -> float:
        value = self.sum()
        if not self.take(by):
            raise Unread
        return value


def worked(figure: Figure) -> tuple[float, float]:
    """A figure worked out by its own formula, and what it must be: its value, or, where the formula is an
    equation, its two sides. Unread where the formula is words alone."""
    values: dict[str, float] = {}
    for one in figure.inputs:
        values[one.symbol] = values[one.name] = float(one.quantity.value)
    left, equals, right = figure.formula.partition(" = ")
    if not equals:
        return _Reader(figure.formula, values).whole(), float(figure.quantity.value)
    sought = next(iter(re.findall(r"(?:sin|cos|tan)² (\S+)$|(?:sin|cos|tan) (\S+)$", left)), ("", ""))
    name = sought[0] or sought[1]
    if not name or name in values:
        raise Unread
    value = float(figure.quantity.value)
    return _Reader(left, {**values, name: value}).whole(), _Reader(right, values).whole()
