"""Documents made from a published JSON Schema alone: whatever it lets through, of every kind."""

from __future__ import annotations

import random
from typing import Any

WORDS = ("A", "bench of ash", "½", "x" * 12)


class FromSchema:
    """Makes random documents a schema lets through; rules between fields it cannot say are not kept."""

    def __init__(self, schema: dict[str, Any], rng: random.Random) -> None:
        self.schema, self.rng = schema, rng

    def make(self, at: dict[str, Any] | None = None, depth: int = 0) -> Any:
        """A value of the part `at` of the schema, of all of it where none is named."""
        at = self._resolved(self.schema if at is None else at)
        if "const" in at:
            return at["const"]
        if "enum" in at:
            return self.rng.choice(at["enum"])
        for several in ("oneOf", "anyOf"):
            if several in at:
                return self.make(self._one_of(at[several]), depth)
        kind = at.get("type")
        if kind == "object":
            return self._object(at, depth)
        if kind == "array":
            return self._array(at, depth)
        if kind in ("number", "integer"):
            number = self._number(at, kind == "integer")
            return int(number) if kind == "integer" else number
        if kind == "boolean":
            return self.rng.random() < 0.5
        if kind == "null":
            return None
        return self._text(at)

    def _resolved(self, at: dict[str, Any]) -> dict[str, Any]:
        while "$ref" in at or len(at.get("allOf", ())) == 1:
            if "$ref" in at:
                here: Any = self.schema
                for step in at["$ref"].removeprefix("#/").split("/"):
                    here = here[step]
                at = here
            else:
                at = at["allOf"][0]
        return at

    def _one_of(self, choices: list[dict[str, Any]]) -> dict[str, Any]:
        # A length may also be a text in the maker's notation; numbers say all there is to say.
        telling = [one for one in choices if one.get("type") != "string" or len(choices) == 1]
        return self.rng.choice(telling or choices)

    def _object(self, at: dict[str, Any], depth: int) -> dict[str, Any]:
        wanted = set(at.get("required", ()))
        chance = 0.6 if depth < 2 else 0.35
        made = {}
        for name, below in at.get("properties", {}).items():
            needed = name in wanted or "const" in self._resolved(below)
            if needed or self.rng.random() < chance:
                made[name] = self.make(below, depth + 1)
        return made

    def _array(self, at: dict[str, Any], depth: int) -> list[Any]:
        if "prefixItems" in at:
            return [self.make(one, depth + 1) for one in at["prefixItems"]]
        least, most = at.get("minItems", 0), at.get("maxItems", 6)
        count = min(most, least + int(self.rng.expovariate(0.9)))
        return [self.make(at.get("items", {}), depth + 1) for _ in range(count)]

    def _number(self, at: dict[str, Any], whole: bool) -> float:
        low = at.get("minimum", at.get("exclusiveMinimum", -1000))
        high = at.get("maximum", at.get("exclusiveMaximum", 1000))
        if whole:
            return self.rng.randint(int(low), int(min(high, low + 12)))
        if self.rng.random() < 0.06:
            return float(self.rng.choice((low, high)))
        # Mostly as things of this size are: a few times the least, not evenly up to the largest.
        if low > 0 and self.rng.random() < 0.7:
            return float(min(high, low * 10 ** self.rng.uniform(0, 1.6)))
        return float(self.rng.uniform(low, high))

    def _text(self, at: dict[str, Any]) -> str:
        if "pattern" in at:
            return f"a{self.rng.randint(0, 999)}"
        word = self.rng.choice(WORDS)
        return word[: at.get("maxLength", 40)]
