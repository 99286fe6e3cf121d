"""Builds pieces by the thousand as told: `tools/judge.py COUNT [SEED]`.

First hidden pieces of every kind, levelled in every way from exact readings: the worst foot's distance
from the wanted plane and the worst misfit of a stretcher. Then as many random pieces in random shops,
every card and every proof carried out blind by the bench of the tests, every tenth of them levelled by
each way: how many by operation and tool, and the worst of everything. The suite runs a seeded few.
"""

from __future__ import annotations

import random
import sys
from dataclasses import replace
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from splay.piece import Piece, read_piece, write_piece
from splay.piece.starters import STARTS, starter
from splay.plan import plan
from splay.reading import Reading
from splay.rehearse import Hidden, really, reveal, take
from splay.shop import workbench
from splay.stance.members import members
from splay.stance.staked import stand
from tests.bench.judged import Tally, carry_out
from tests.bench.levelled import WAYS as LEVELLING
from tests.bench.levelled import level
from tests.bench.pieces import buildable

SHOP = workbench()
WAYS = ("bench", "standing", "shims", "seat")


def read(made: Piece, hidden: Hidden, known: tuple[Reading, ...], proof: str) -> tuple[Reading, ...]:
    """One more exact reading; where it looks like a slip it is read again, and it stays."""
    taken = take(made, SHOP, hidden, known, proof)
    more = (*known, taken)
    verdict = next(p.verdict for p in plan(made, SHOP, more).proofs if p.id == proof)
    return (*known, replace(taken, sure=True)) if verdict == "slip" else more


def build(rng: random.Random, k: int) -> tuple[float, float]:
    """One hidden piece bored, read, trimmed once: worst rock or fall (mm, over 300 mm), worst misfit."""
    document = write_piece(starter(tuple(STARTS)[k % len(STARTS)]))
    document["lean"] = {"fall": rng.choice((0, 0, 2.5)), "toward": 90}
    document["levelling"] = {
        "passes": [{"way": rng.choice(WAYS)}], "ends": rng.choice(("square", "sawn")), "flat": 0,
    }  # fmt: skip
    hidden, known = Hidden(rng.randrange(2**31), rng.uniform(0.2, 2.0)), ()
    made = read_piece(document)
    for leg in stand(made).legs:
        known = read(made, hidden, known, f"bore.{leg.id}")
    runs, _ = members(made, really(made, hidden))
    fit = 0.0
    for run in runs:
        known = read(made, hidden, known, f"gap.{run.id}")
    parts = {part.number: part for part in plan(made, SHOP, known).members}
    for run in runs:
        gap = run.centres - run.ends[0].leaves - run.ends[1].leaves
        part = parts[run.number]
        fit = max(fit, abs(part.total.quantity.value - gap - sum(t.quantity.value for t in part.tenons)))
    for id in [p.id for p in plan(made, SHOP, known).proofs if p.station == "level"]:
        known += (take(made, SHOP, hidden, known, id),)
    document["levelling"]["passes"] *= 2
    truth = reveal(read_piece(document), SHOP, hidden, known)
    fall = max(abs(truth.falls_right.value), abs(truth.falls_back.value)) * 300 * 3.14159 / 180
    return max(truth.rock.value, fall), fit


def hidden(count: int, seed: int) -> None:
    """Hidden pieces read exactly and cut once."""
    rng = random.Random(seed)
    worst, misfit = 0.0, 0.0
    for k in range(count):
        foot, fit = build(rng, k)
        worst, misfit = max(worst, foot), max(misfit, fit)
    print(f"{count} hidden pieces, seed {seed}: worst foot {worst:.4f} mm, worst stretcher {misfit:.4f} mm")


def blind(count: int, seed: int) -> None:
    """Random pieces carried out by hands that know the data alone."""
    whole = Tally()
    for k in range(count):
        made, done, shop = buildable(random.Random(f"{seed}.{k}"))
        whole.add(carry_out(made, done, shop))
        falls = {"cannot_stand", "too_few_feet"} & {found.code for found in done.findings}
        if k % EVERY == 0 and not falls:
            for way in LEVELLING:
                if way != "sighted" or len(done.stance.legs) == 4:
                    whole.add(level(made, shop, way, k))
    print(f"{count} random pieces carried out blind, seed {seed}")
    for (operation, tool), times in sorted(whole.done.items()):
        print(f"  {operation:14} {tool:14} {times:7}")
    for what, (off, where) in sorted(whole.worst.items()):
        print(f"  worst {what:22} {off:.4f}   {where[:60] if off > 1e-3 else ''}")


EVERY = 10
"""Levelling is dear: every so manieth piece is levelled by each way."""


def main(count: int, seed: int) -> None:
    """Run and print."""
    hidden(count, seed)
    blind(count, seed)


if __name__ == "__main__":
    main(int(sys.argv[1]), int(sys.argv[2]) if len(sys.argv) > 2 else 20261124)
