"""Requests by the thousand over every route: what the schema suggests, what it forbids, and worse.

schemathesis makes them from the published schema, right ones and wrong ones; beside these go whole
documents with places put wrong, bytes that are no text, kinds of content nothing here reads, and files
that are no photographs. Every answer is held to the schema: its status and content type declared, never
a fault of the program, never a number that is none, never more than half a megabyte.
"""

from __future__ import annotations

import json
import random
import threading
import time
import warnings
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from typing import Any

import requests
import schemathesis
from hypothesis import HealthCheck, Phase, given, seed, settings
from schemathesis import GenerationMode

from splay.piece import write_piece
from splay.piece.starters import STARTS, starter
from splay.shop import workbench, write_shop
from tests.api.test_fuzz import spoiled
from tools.trusted.killed import photograph
from tools.trusted.shop import ROOT, Maker, Shop, opened

MOST_BYTES = 512_000
LEFT_OUT = {("delete", "/api/session"), ("put", "/api/session/password"), ("delete", "/api/makers/{name}")}
"""They would sign the asker out, and are asked in the suite."""


@dataclass
class Answers:
    """What came back, counted; `wrong` the first of each thing that must not be."""

    schema: dict[str, Any]
    count: int = 0
    statuses: dict[int, int] = field(default_factory=dict)
    wrong: dict[str, list[str]] = field(default_factory=dict)
    slowest: tuple[float, str] = (0.0, "")
    lock: threading.Lock = field(default_factory=threading.Lock)

    def look(self, answer: requests.Response, method: str, path: str) -> None:
        """Hold one answer to what it may be; `path` as the schema writes it."""
        with self.lock:
            self.count += 1
            status, took = answer.status_code, answer.elapsed.total_seconds()
            self.statuses[status] = self.statuses.get(status, 0) + 1
            self.slowest = max(self.slowest, (took, f"{method} {path}"))
            kind = answer.headers.get("content-type", "").split(";")[0]
            for what in self._amiss(method, path, status, kind, answer.content):
                said = f"{method} {path}: {status} {kind} {answer.text[:160]}"
                self.wrong.setdefault(what, []).append(f"{said} | sent {str(answer.request.body)[:200]}")

    def _amiss(self, method: str, path: str, status: int, kind: str, content: bytes) -> Iterator[str]:
        if status >= 500:
            yield "faults"
        if not self._declared(method, path, status, kind):
            yield "undeclared"
        if len(content) > MOST_BYTES and kind != "application/zip":
            yield "too large"
        if kind.endswith("json"):
            try:
                json.loads(content, parse_constant=_no_number)
            except ValueError:
                yield "no number"

    def _declared(self, method: str, path: str, status: int, kind: str) -> bool:
        operation = self.schema["paths"].get(path, {}).get(method.lower())
        if operation is None:
            known = f"Problem{status}" in self.schema["components"]["responses"]
            return known and kind == "application/problem+json"
        answers = operation["responses"].get(str(status))
        if answers is None:
            return False
        if "$ref" in answers:
            answers = self.schema["components"]["responses"][answers["$ref"].rsplit("/", 1)[1]]
        return kind in answers.get("content", {}) or (status == 204 and not kind)


def _no_number(name: str) -> float:
    raise ValueError(name)


class Asker:
    """One connection that asks as a signed-in maker."""

    def __init__(self, shop: Shop, maker: Maker, answers: Answers) -> None:
        self.base, self.answers = f"http://127.0.0.1:{shop.port}", answers
        self.session = requests.Session()
        self.session.headers.update(maker.headers())

    def ask(self, method: str, path: str, at: str | None = None, body: bytes = b"", **headers: str) -> int:
        """The status of one request of our own making; `path` as the schema has it, `at` where it leads."""
        answer = self.session.request(
            method, self.base + (at or path), data=body, headers=headers or None, timeout=60
        )
        self.answers.look(answer, method, path)
        return answer.status_code


def asked(count: int, threads: int = 4, chance: int = 1) -> dict[str, object]:
    """So many requests, half from the schema and half of our own; what came back."""
    schema = json.loads((ROOT / "docs" / "openapi.json").read_text(encoding="utf-8"))
    answers = Answers(schema)
    with opened() as (shop, maker):
        made = maker.ask("POST", "/api/pieces", {"start": "bench"})
        assert made is not None
        id = made[1]["id"]
        before = shop.memory_mb()
        began = time.monotonic()
        # What makes cases from the schema is not made for several threads: it has one, the rest the others.
        hands = [
            threading.Thread(
                target=_from_schema, args=(Asker(shop, maker, answers), schema, id, count // 2, chance)
            )
        ]
        share = count // 2 // (threads - 1)
        for turn in range(1, threads):
            asker = Asker(shop, maker, answers)
            hands.append(threading.Thread(target=_of_our_own, args=(asker, id, share, chance + turn)))
        for hand in hands:
            hand.start()
        for hand in hands:
            hand.join()
        seconds = time.monotonic() - began
        after = shop.memory_mb()
    return {
        "requests": answers.count,
        "seconds": round(seconds),
        "statuses": dict(sorted(answers.statuses.items())),
        "wrong": {what: (len(found), found[:4]) for what, found in answers.wrong.items()},
        "slowest": (round(answers.slowest[0], 2), answers.slowest[1]),
        "memory_mb": (round(before), round(after)),
    }


def _from_schema(asker: Asker, schema: dict[str, Any], id: str, count: int, chance: int) -> None:
    """What schemathesis makes of the schema, right and wrong, over every route by turns."""
    known = schemathesis.openapi.from_dict(schema)
    operations = [
        found.ok()
        for found in known.get_all_operations()
        if (found.ok().method.lower(), found.ok().path) not in LEFT_OUT
    ]
    each = max(1, count // (2 * len(operations)))
    for operation in operations:
        for mode in (GenerationMode.POSITIVE, GenerationMode.NEGATIVE):
            _cases(asker, operation, mode, each, id, chance)


def _cases(asker: Asker, operation: Any, mode: Any, each: int, id: str, chance: int) -> None:
    rng = random.Random(chance)

    @seed(chance)
    @settings(
        max_examples=each,
        deadline=None,
        database=None,
        phases=[Phase.generate],
        suppress_health_check=list(HealthCheck),
    )
    @given(operation.as_strategy(generation_mode=mode))
    def one(case: Any) -> None:
        # Random ids are of pieces there are none of: most go to one there is.
        there = "/pieces/{id}" in case.path and (case.method, case.path) != ("DELETE", "/api/pieces/{id}")
        if there and rng.random() < 0.8:
            case.path_parameters["id"] = id
        sent = case.as_transport_kwargs(base_url=asker.base)
        # Without the session nobody gets past the door: that is asked in the suite.
        sent.pop("cookies", None)
        sent["headers"] = {k: v for k, v in sent["headers"].items() if k.lower() != "cookie"}
        answer = asker.session.request(**{**sent, "timeout": 60})
        asker.answers.look(answer, case.method, case.path)

    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        try:
            one()
        except Exception as error:
            if "Unsatisfiable" not in type(error).__name__:
                raise


KINDS = (
    "application/json",
    "application/json; charset=utf-16",
    "multipart/form-data; boundary=x",
    "multipart/form-data",
    "application/x-www-form-urlencoded",
    "text/html",
    "image/png",
    "",
)


def _of_our_own(asker: Asker, id: str, count: int, chance: int) -> None:
    rng = random.Random(chance)
    ways: tuple[tuple[float, Callable[..., None]], ...] = (
        (0.28, _spoiled_plan),
        (0.15, _spoiled_piece),
        (0.12, _spoiled_shop),
        (0.2, _reading),
        (0.15, _raw),
        (0.1, _hostile),
    )
    for _ in range(count):
        [way] = rng.choices([way for _, way in ways], [weight for weight, _ in ways])
        way(asker, rng, id)


def _json(body: Any) -> bytes:
    return json.dumps(body).encode()


def _spoiled_plan(asker: Asker, rng: random.Random, id: str) -> None:
    document = spoiled(write_piece(starter(rng.choice(list(STARTS)))), rng)
    station = rng.choice(("stance", "top", "boring", "legs", "stretchers", "level", "solid"))
    asker.ask("POST", "/api/plan", body=_json({"piece": document, "station": station}))


def _spoiled_piece(asker: Asker, rng: random.Random, id: str) -> None:
    document = spoiled(write_piece(starter(rng.choice(list(STARTS)))), rng)
    body = _json({"document": document, "based_on": rng.choice((0, 1, 2, 10**9))})
    asker.ask("PUT", "/api/pieces/{id}", f"/api/pieces/{id}", body)


def _spoiled_shop(asker: Asker, rng: random.Random, id: str) -> None:
    asker.ask("PUT", "/api/shop", body=_json({"shop": spoiled(write_shop(workbench()), rng)}))


def _reading(asker: Asker, rng: random.Random, id: str) -> None:
    proof = rng.choice(("bore.l1", "gap.m1", "foot.l9", "%00", "..%2f..", "x" * 200, "level.p1.l1", "é"))
    typed = rng.choice(("12", "-1", "1e400", "nan", "inf", "½ in", "x" * 41, "\x00", "١٢", "1/0", "12 mm"))
    body = {
        "typed": typed,
        "kind": rng.choice(("bore", "gap", "", "?")),
        "based_on": rng.choice((0, -1, 5)),
    }
    path = "/api/pieces/{id}/readings/{proof}"
    asker.ask("PUT", path, f"/api/pieces/{id}/readings/{proof}", _json(body))


def _raw(asker: Asker, rng: random.Random, id: str) -> None:
    body = rng.choice(
        (
            rng.randbytes(50),
            b"[" * 50_000,
            b'{"a":' * 5000,
            b"\xff\xfe",
            b"{}",
            b'{"piece": NaN}',
            b"9" * 5000,
        )
    )
    path = rng.choice(("/api/plan", "/api/session", "/api/pieces", "/api/angles", "/api/makers"))
    method = rng.choice(("POST", "POST", "PATCH"))
    asker.ask(method, path, body=body, **{"Content-Type": rng.choice(KINDS)})


def hostile(rng: random.Random) -> bytes:
    """A file that is no photograph, or the torn half of one."""
    whole = photograph(200)
    return rng.choice(
        (
            # Torn before its last pixels: one that only lacks its check sum is a whole picture.
            whole[: rng.randint(1, len(whole) * 3 // 4)],
            b"GIF89a" + rng.randbytes(60),
            b"BM" + rng.randbytes(60),
            b"II*\x00" + rng.randbytes(60),
            b"\x89PNG\r\n\x1a\n" + rng.randbytes(90),
            b"\xff\xd8\xff\xe0" + rng.randbytes(90),
            b"RIFF" + rng.randbytes(4) + b"WEBPVP8L" + rng.randbytes(60),
            b"%PDF-1.4" + rng.randbytes(40),
            b"<svg xmlns='http://www.w3.org/2000/svg' onload='x()'/>",
            b"<!doctype html><script>x()</script>",
        )
    )


def _hostile(asker: Asker, rng: random.Random, id: str) -> None:
    path, sent = "/api/pieces/{id}/photo", hostile(rng)
    status = asker.ask("PUT", path, f"/api/pieces/{id}/photo", sent, **{"Content-Type": "image/png"})
    if status < 400:
        asker.answers.wrong.setdefault("let in", []).append(repr(sent[:60]))


def let_in(count: int = 200) -> Iterator[str]:
    """The hostile files that were kept: none may be."""
    rng = random.Random(count)
    with opened() as (_, maker):
        made = maker.ask("POST", "/api/pieces", {"start": "log_slice"})
        assert made is not None
        for _ in range(count):
            sent = hostile(rng)
            got = maker.ask("PUT", f"/api/pieces/{made[1]['id']}/photo", sent)
            if got is None or got[0] != 422:
                yield f"{got}: {sent[:40]!r}"
